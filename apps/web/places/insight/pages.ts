/** The pages of insight. */
export const INSIGHT_PAGES = [
  { path: '/insight', name: 'Overview', isExact: true },
  { path: '/insight/intervals', name: 'Intervals' },
  { path: '/insight/families', name: 'Families' },
  { path: '/insight/calibrations', name: 'Calibrations' },
] as const;
