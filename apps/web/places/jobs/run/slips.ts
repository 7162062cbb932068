/** Questions about a reading before it is taken, in words. */
import { slipsOf, spanTolerance, type Slip } from '@barys/core/run';
import { expectedOutput } from '@barys/core/signal';
import { formatPlain } from '@barys/core/text';
import { convertPressure, isPressureUnit, PRESSURE_UNITS, type PressureUnit } from '@barys/core/units';
import { rangeOfColumn, secondScaleOf } from '@barys/store/beside';
import { limitsOf, standardAt } from '@barys/store/evaluation';
import type { ExtraColumn, MadeWith } from '@barys/store/runs';
import type { Figures } from '@/ui/figures';
import { numberOr } from './typed';
import type { Entry } from './types';

type Point = MadeWith['points'][number];

function words(slip: Slip): string {
  switch (slip.kind) {
    case 'decimal-sign':
      return 'a digit too many, or a decimal sign moved?';
    case 'other-unit':
      return `in ${slip.unit}?`;
    case 'sign':
      return 'the sign: leads or lines reversed?';
    case 'neighbouring-point':
      return 'the reading of the point beside it?';
    case 'in-percent':
      return 'the output in per cent?';
    case 'no-loop':
      return 'no loop: is it closed, and does the meter measure what it should?';
    case 'below-live-zero':
      return 'below the live zero: a failure signal, or a loop that is not whole?';
    case 'same-as-before':
      return 'the figure of the point before?';
    case 'other-way':
      return 'it went the other way than the input';
    case 'far-off':
      return 'several limits off.';
  }
}

/** Pressure units that a gauge or a calibrator may be switched to by mistake. */
const LIKELY_UNITS: readonly PressureUnit[] = [
  'Pa',
  'kPa',
  'MPa',
  'mbar',
  'bar',
  'psi',
  'kgfPerCm2',
  'inH2OAt4C',
  'mmH2OAt4C',
  'inHgAt0C',
  'mmHgAt0C',
];

/** What one of each other unit is in the unit asked for. */
function otherUnits(unit: string): readonly { readonly unit: string; readonly factor: number }[] {
  if (isPressureUnit(unit))
    return LIKELY_UNITS.filter((one) => one !== unit).map((one) => ({
      unit: PRESSURE_UNITS[one].label,
      factor: convertPressure(1, one, unit),
    }));
  if (unit === 'mA')
    return [
      { unit: 'A', factor: 1000 },
      { unit: 'V over 250 Ω', factor: 4 },
    ];
  if (unit === 'V')
    return [
      { unit: 'mV', factor: 0.001 },
      { unit: 'mA through 250 Ω', factor: 0.25 },
    ];
  return unit === 'mV' ? [{ unit: 'V', factor: 1000 }] : [];
}

/** What is typed in one column at a point, at the value applied. */
export interface TypedAt {
  readonly column: ExtraColumn | 'output';
  readonly applied: number;
  readonly value: number;
  readonly text: string;
}

const valueIn = (entry: Entry, column: TypedAt['column']): number | null =>
  column === 'output'
    ? entry.output
    : entry.more[column] === undefined
      ? null
      : numberOr(entry.more[column], NaN);

/**
 * What looks like a slip of the fingers or of the hook-up, as a question; null where nothing does, or where the scale of
 * what is typed is not known.
 */
export function slipQuestion(
  madeWith: MadeWith,
  point: Point,
  typed: TypedAt,
  entries: ReadonlyMap<number, Entry>,
  figures: Figures,
): string | null {
  const { configuration, points, head, tolerance } = madeWith;
  const { column } = typed;
  const range = rangeOfColumn(madeWith, column);
  if (range === null) return null;
  const last = points.filter(({ position }) => position < point.position).at(-1);
  const entry = last === undefined ? undefined : entries.get(last.position);
  const earlier = entry === undefined ? null : valueIn(entry, column);
  const before =
    last === undefined || entry === undefined || earlier === null || Number.isNaN(earlier)
      ? null
      : { applied: entry.applied + head, output: earlier, direction: last.direction };
  const neighbours = points
    .filter(({ position }) => Math.abs(position - point.position) === 1)
    .map(({ nominalApplied }) => nominalApplied);
  const scale = column === 'second' ? secondScaleOf(madeWith) : null;
  const unit = scale?.unit ?? (column === 'digital' ? configuration.inputUnit : configuration.outputUnit);
  const by = scale === null ? limitsOf(tolerance) : spanTolerance(scale.percentOfSpan);
  const applied = typed.applied + head;
  const slips = slipsOf(range, by, applied, typed.value, {
    before,
    neighbours,
    units: otherUnits(unit),
    isPercent: unit === '%',
  });
  if (slips.length === 0) return null;
  const ideal = expectedOutput(range, applied);
  const expected =
    column === 'digital'
      ? figures.input(ideal)
      : column === 'second'
        ? formatPlain(Number(ideal.toPrecision(5)))
        : figures.output(ideal);
  return `${typed.text}: ${slips.slice(0, 3).map(words).join(' Or ')} Expected is about ${expected}. Enter again takes it as it is.`;
}

/** Why a pressure must not be applied: beyond what its standard reaches; null where it may. */
export function overRange(madeWith: MadeWith, point: Point, applied: number): string | null {
  const standard = standardAt(madeWith, point);
  const { inputUnit } = madeWith.configuration;
  if (!isPressureUnit(standard.unit)) return null;
  const at = convertPressure(applied, inputUnit, standard.unit);
  const slack = (standard.rangeHigh - standard.rangeLow) * 1e-9;
  if (at <= standard.rangeHigh + slack && at >= standard.rangeLow - slack) return null;
  return `Stop: ${standard.tag} is over-ranged. It reaches from ${standard.rangeLow} to ${standard.rangeHigh} ${standard.unit}. Bring the pressure back; if it really was there, the standard has to be checked before it is used again.`;
}
