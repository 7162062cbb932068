/** A liquid as it is typed: its table as lines of temperature and density, or as a CSV has them. */
import { formatPlain } from '@barys/core/text';
import { convert, isUnit, quantityOf, type Unit } from '@barys/core/units';
import type { Liquid } from '@barys/store/registers';
import { typedNumber } from '@/ui/readNumber';
import { cellsOfLine, linesOfTable } from '@/ui/typedTable';

export const LIQUID_FIELDS = { name: '', source: '', unit: 'kgPerM3', points: '' };
export type LiquidFields = Readonly<typeof LIQUID_FIELDS>;

const unitOf = ({ unit }: LiquidFields): Unit =>
  isUnit(unit) && quantityOf(unit) === 'density' ? unit : 'kgPerM3';

const plain = (value: number): string => formatPlain(value).replace('\u2212', '-');

export const fieldsOfLiquid = ({ name, source, points }: Liquid): LiquidFields => ({
  name,
  source,
  unit: 'kgPerM3',
  points: points
    .map(({ temperatureC, densityKgPerM3 }) => `${plain(temperatureC)}; ${plain(densityKgPerM3)}`)
    .join('\n'),
});

/** What the schema of a liquid reads. */
export function liquidOfFields(fields: LiquidFields): Record<string, unknown> {
  const unit = unitOf(fields);
  return {
    name: fields.name,
    source: fields.source,
    points: linesOfTable(fields.points).map((line) => {
      const [temperature = '', density = ''] = cellsOfLine(line);
      const value = typedNumber(density);
      return {
        temperatureC: typedNumber(temperature),
        densityKgPerM3: value === null || Number.isNaN(value) ? value : convert(value, unit, 'kgPerM3'),
      };
    }),
  };
}
