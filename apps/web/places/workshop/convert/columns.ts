/** The columns of water and mercury side by side: what the reference alone changes. */
import { convertPressure, type PressureUnit } from '@barys/core/units';

export interface ReferenceRow {
  readonly name: string;
  /** One unit for each reference, in the order of its table; null where that unit is not in use. */
  readonly units: readonly (PressureUnit | null)[];
}

export const WATER_REFERENCES = ['4 °C', '60 °F', '68 °F', 'conventional'] as const;
export const WATER_ROWS: readonly ReferenceRow[] = [
  { name: 'inH2O', units: ['inH2OAt4C', 'inH2OAt60F', 'inH2OAt68F', 'inH2OConventional'] },
  { name: 'ftH2O', units: ['ftH2OAt4C', 'ftH2OAt60F', 'ftH2OAt68F', 'ftH2OConventional'] },
  { name: 'mmH2O', units: ['mmH2OAt4C', null, 'mmH2OAt68F', 'mmH2OConventional'] },
  { name: 'cmH2O', units: ['cmH2OAt4C', null, 'cmH2OAt68F', 'cmH2OConventional'] },
  { name: 'mH2O', units: ['mH2OAt4C', null, 'mH2OAt68F', 'mH2OConventional'] },
];

export const MERCURY_REFERENCES = ['0 °C', '60 °F'] as const;
export const MERCURY_ROWS: readonly ReferenceRow[] = [{ name: 'inHg', units: ['inHgAt0C', 'inHgAt60F'] }];

/** The units that stand in the tables of references. */
export const COLUMN_UNITS: ReadonlySet<string> = new Set(
  [...WATER_ROWS, ...MERCURY_ROWS].flatMap(({ units }) => units.filter((unit) => unit !== null)),
);

export interface ReferenceCell {
  readonly unit: PressureUnit;
  readonly value: number;
  /** Against the first reference of its row, per cent. */
  readonly differencePercent: number;
}

/** A pressure in each reference of a row. */
export function cellsOf(row: ReferenceRow, value: number, from: PressureUnit): (ReferenceCell | null)[] {
  const [first] = row.units;
  return row.units.map((unit) => {
    if (unit === null || first == null) return null;
    return {
      unit,
      value: convertPressure(value, from, unit),
      // The share does not depend on the value, so a value of zero has one too.
      differencePercent: (convertPressure(1, first, unit) - 1) * 100,
    };
  });
}
