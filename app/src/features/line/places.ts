import type { Href } from 'expo-router';

/** Addresses of the screens, in one place so that links and journeys agree. */
export const places = {
  shelf: '/' as Href,
  newProject: '/new' as Href,
  line: (projectId: string) => `/p/${projectId}` as Href,
  losses: (projectId: string) => `/p/${projectId}/losses` as Href,
  limits: (projectId: string) => `/p/${projectId}/limits` as Href,
  closure: (projectId: string, closureId: string) => `/p/${projectId}/c/${closureId}` as Href,
  tray: (projectId: string, closureId: string, tray: number) =>
    `/p/${projectId}/c/${closureId}/t/${tray}` as Href,
  bench: (projectId: string, closureId: string, tray: number, slot: number) =>
    `/p/${projectId}/c/${closureId}/t/${tray}/${slot}` as Href,
};

export type ProjectTab = 'line' | 'losses' | 'limits';

export function projectTabs(projectId: string, here: ProjectTab) {
  return [
    { label: 'Line', href: places.line(projectId), here: here === 'line' },
    { label: 'Losses', href: places.losses(projectId), here: here === 'losses' },
    { label: 'Limits', href: places.limits(projectId), here: here === 'limits' },
  ];
}
