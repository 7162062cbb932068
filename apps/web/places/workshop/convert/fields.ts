/** What stands in the fields of Convert before anything is typed. */
export const CONVERT_FIELDS = {
  value: '25',
  unit: 'kPa',
  to: 'inH2OAt4C',
  kind: 'gauge',
  toKind: 'absolute',
  barometer: '1013.25',
  barometerUnit: 'hPa',
};

export type ConvertFields = Readonly<typeof CONVERT_FIELDS>;
