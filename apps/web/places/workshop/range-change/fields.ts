/** The fields of Range change as they are typed. Ranges are in one unit; the body's figures are converted into it. */
export const RANGE_CHANGE_FIELDS = {
  tag: '',
  body: '',
  unit: 'mbar',
  oldLow: '0',
  oldHigh: '250',
  newLow: '0',
  newHigh: '100',
  torque: 'N·m',
};
export type RangeChangeFields = Readonly<typeof RANGE_CHANGE_FIELDS>;
