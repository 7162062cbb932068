/** The pages of insight. */
export const INSIGHT_PAGES = [
  { path: '/insight/intervals', name: 'Intervals' },
  { path: '/insight/families', name: 'Families' },
] as const;
