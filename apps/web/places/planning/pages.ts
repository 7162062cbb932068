/** The pages of planning. */
export const PLANNING_PAGES = [
  { path: '/planning', name: 'Week', isExact: true },
  { path: '/planning/walks', name: 'Walks' },
  { path: '/planning/due', name: 'Due' },
  { path: '/planning/hours', name: 'Hours and shutdowns' },
] as const;
