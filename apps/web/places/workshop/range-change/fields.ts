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

/** Newton metres in the unit that a plant's wrenches are marked in (exact: 0.3048 m, 4.4482216152605 N). */
export const TORQUE_UNITS: Readonly<Record<string, number>> = {
  'N·m': 1,
  'lbf·ft': 1 / (0.3048 * 4.4482216152605),
  'lbf·in': 12 / (0.3048 * 4.4482216152605),
};
