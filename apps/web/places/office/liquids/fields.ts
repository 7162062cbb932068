/** A liquid as it is typed: its table as lines of temperature and density, or as a CSV has them. */
import { formatPlain } from '@barys/core/text';
import { convert, isUnit, quantityOf, type Unit } from '@barys/core/units';
import type { Liquid } from '@barys/store/registers';
import { typedNumber } from '@/ui/readNumber';

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

/** Two figures of a line, parted by ; or a tab, by blanks, or by a comma where there is no other mark. */
function cellsOf(line: string): readonly string[] {
  for (const mark of [/[;\t]/, /,\s+/, /\s+/, /,/]) {
    const cells = line.split(mark).map((cell) => cell.trim());
    if (cells.length > 1) return cells;
  }
  return [line];
}

/** What the schema of a liquid reads; a first line of words is a heading. */
export function liquidOfFields(fields: LiquidFields): Record<string, unknown> {
  const unit = unitOf(fields);
  const lines = fields.points
    .split(/\r?\n/)
    .map((line) => line.trim())
    .filter((line) => line !== '');
  const rows = /^[^\d-]*[a-z]/i.test(lines[0] ?? '') ? lines.slice(1) : lines;
  return {
    name: fields.name,
    source: fields.source,
    points: rows.map((line) => {
      const [temperature = '', density = ''] = cellsOf(line);
      const value = typedNumber(density);
      return {
        temperatureC: typedNumber(temperature),
        densityKgPerM3: value === null || Number.isNaN(value) ? value : convert(value, unit, 'kgPerM3'),
      };
    }),
  };
}
