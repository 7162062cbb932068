/** The pages of the office. */
export const OFFICE_PAGES = [
  { path: '/office/people', name: 'People' },
  { path: '/office/procedures', name: 'Procedures' },
  { path: '/office/bodies', name: 'Bodies' },
] as const;
