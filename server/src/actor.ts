import { idSchema } from '@cordel/core';
import type { MiddlewareHandler } from 'hono';

/** Who asks. There is no sign-in yet: it is the device, by the name that it gives itself. */
export interface Actor {
  readonly device: string | null;
}

/** What every request carries through its routes. */
export interface RequestVariables {
  Variables: { actor: Actor; requestId: string };
}

/** In which the app names its device. */
const deviceHeader = 'Cordel-Device';

export const readActor: MiddlewareHandler<RequestVariables> = async (context, next) => {
  context.set('actor', { device: idSchema.safeParse(context.req.header(deviceHeader)).data ?? null });
  await next();
};
