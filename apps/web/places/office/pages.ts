/** The pages of the office. */
export const OFFICE_PAGES = [
  { path: '/office/people', name: 'People' },
  { path: '/office/procedures', name: 'Procedures' },
  { path: '/office/bodies', name: 'Bodies' },
  { path: '/office/liquids', name: 'Liquids' },
  { path: '/office/import', name: 'Import' },
  { path: '/office/export', name: 'Export' },
  { path: '/office/trail', name: 'Audit trail' },
  { path: '/office/settings', name: 'Settings' },
] as const;
