/** How references are said. */
import { formatPlain } from '@barys/core/text';
import { isPressureUnit, PRESSURE_UNITS } from '@barys/core/units';
import type { NewModule } from '@barys/store/registers';
import { showDate } from '@/server/dates';

/** `certificate K-26-0312, due 18 May 2027` */
export const certificateWords = ({
  certificate,
  dueOn,
}: {
  readonly certificate: string;
  readonly dueOn: string | null;
}): string => (dueOn === null ? 'no certificate' : `certificate ${certificate}, due ${showDate(dueOn)}`);

type Range = Pick<NewModule, 'name' | 'rangeLow' | 'rangeHigh' | 'unit' | 'quantity' | 'kind'>;

/** A serial number in words; one that was never entered says so, since it identifies what was measured. */
export const serialWords = (serial: string): string =>
  serial === '' ? 'serial number not entered' : `serial ${serial}`;

export const unitWord = (unit: string): string => (isPressureUnit(unit) ? PRESSURE_UNITS[unit].label : unit);

/** `−1 … 20 bar gauge` */
export function rangeWords({ rangeLow, rangeHigh, unit, quantity, kind }: Range): string {
  const range = `${formatPlain(rangeLow)} … ${formatPlain(rangeHigh)} ${unitWord(unit)}`;
  return quantity === 'pressure' ? `${range} ${kind}` : range;
}

/** `0.02 % of reading + 0.01 % of range` */
export function accuracyWords(module: Omit<NewModule, 'isActive'>): string {
  return (
    [
      [module.percentOfReading, '% of reading'],
      [module.percentOfRange, '% of range'],
      [module.floor, unitWord(module.unit)],
      [module.driftPercentOfReadingPerYear, '% of reading a year'],
      [module.percentOfReadingPerK, '% of reading per K'],
    ] as const
  )
    .filter(([amount]) => amount !== 0)
    .map(([amount, of]) => `${formatPlain(amount)} ${of}`)
    .join(' + ');
}
