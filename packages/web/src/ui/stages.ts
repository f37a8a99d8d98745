/** The course: the five stages in order. */
export const stages = [
  { path: 'shape', title: 'Shape' },
  { path: 'feed', title: 'Feed' },
  { path: 'solve', title: 'Solve' },
  { path: 'read', title: 'Read' },
  { path: 'explore', title: 'Explore' },
] as const;
export type StagePath = (typeof stages)[number]['path'];
