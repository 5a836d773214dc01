import type { ProjectDefinition } from '@cordel/core';
import { request } from '../../server/test/process';

/** Four years: the same day of the same month. ms */
const later = 1461 * 24 * 3_600_000;

/** Moves a project’s nights into the future, so that they are planned from their beginning whatever the day. @param url of the project at the server */
export async function nightsToCome(url: string, { project }: ProjectDefinition): Promise<void> {
  const { id: _, lineVersion: __, ...settings } = project;
  const moved = (time: string) => new Date(Date.parse(time) + later).toISOString();
  const nights = {
    ...project.nights!,
    nights: project.nights!.nights.map((night) => ({
      ...night,
      opens: moved(night.opens),
      closes: moved(night.closes),
    })),
  };
  const { status } = await request(`${url}/settings`, 'PUT', { ...settings, nights });
  if (status !== 200) throw new Error(`The nights were not moved: ${status}.`);
}
