/** Query keys. Everything of one project lies below its own. */
export const keys = {
  shelf: ['shelf'] as const,
  models: ['models'] as const,
  gear: ['gear'] as const,
  gearBook: ['gear', 'book'] as const,
  project: (projectId: string) => ['project', projectId] as const,
  progress: (projectId: string) => ['project', projectId, 'progress'] as const,
};
