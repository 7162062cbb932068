/** The figures of insight as charts and tables, each line with the list behind it. */
import { reliabilityBounds } from '@barys/core/interval';
import { formatFixed, formatPlain } from '@barys/core/text';
import { SUSPICION_NAMES } from '@barys/core/suspects';
import {
  monthBefore,
  type MonthCount,
  type MonthRate,
  type Named,
  type ReferenceUse,
  type Workload,
} from '@barys/store/insight';
import type { FamilySum } from '@barys/store/intervals';
import dayjs from 'dayjs';
import { partWords } from '@/places/instruments/history/words';
import { ADJUSTMENT_WORD } from '@/places/jobs/words';
import { dueInWords } from '@/server/dates';
import type { ChartShape } from './chartShape';
import type { FigureTable } from './ChartSheet';

export interface Figure {
  readonly shape: ChartShape;
  readonly table: FigureTable;
}

export const monthWords = (month: string): string => dayjs(month).format('MMM YYYY');
const shortMonth = (month: string): string => dayjs(month).format('MMM YY');

/** The list of calibrations behind a figure. */
export const calibrationsLink = (search: Readonly<Record<string, string>>): string =>
  `/insight/calibrations?${new URLSearchParams(search)}`;

const inMonth = (month: string) => ({ from: month, to: dayjs(month).endOf('month').format('YYYY-MM-DD') });

const dueLink = (due: string): string => `/instruments?${new URLSearchParams({ state: 'in service', due })}`;

/** The part found inside, in per cent, with its exact bounds of 95 %; null of none. */
function insideOf({ calibrations, out }: { readonly calibrations: number; readonly out: number }) {
  if (calibrations === 0) return null;
  const { observed, twoSided } = reliabilityBounds({ calibrations, out });
  return { observed, ...twoSided };
}

const shareFigure = (
  kind: ChartShape['kind'],
  rows: readonly {
    readonly label: string;
    readonly words: string;
    readonly calibrations: number;
    readonly out: number;
    readonly href: string;
  }[],
  head: string,
): Figure => {
  const inside = rows.map(insideOf);
  return {
    shape: {
      kind,
      labels: rows.map(({ label }) => label),
      values: inside.map((one) => (one === null ? null : 100 * one.observed)),
      bounds: inside.map((one) => (one === null ? null : [100 * one.low, 100 * one.high])),
      unit: '%',
      most: 100,
      links: rows.map(({ href }) => href),
    },
    table: {
      header: [head, 'Calibrations', 'Outside', 'Inside', '95 % bounds'],
      rows: rows.map(({ words, calibrations, out, href }, index) => {
        const one = inside[index] ?? null;
        return {
          cells: [
            words,
            String(calibrations),
            String(out),
            one === null ? '—' : partWords(one.observed),
            one === null ? '—' : `${partWords(one.low)} … ${partWords(one.high)}`,
          ],
          href,
        };
      }),
    },
  };
};

export const foundFigure = (rows: readonly MonthRate[]): Figure =>
  shareFigure(
    'months',
    rows.map(({ month, calibrations, out }) => ({
      label: shortMonth(month),
      words: monthWords(month),
      calibrations,
      out,
      href: calibrationsLink({ ...inMonth(month), kind: 'as-found' }),
    })),
    'Month',
  );

/** The worst families of those that have enough to be told. */
export const familiesFigure = (sums: readonly FamilySum[], least: number): Figure =>
  shareFigure(
    'names',
    sums
      .filter(({ calibrations }) => calibrations >= least)
      .slice(0, 8)
      .map(({ name, ...counted }) => ({
        ...counted,
        label: name,
        words: name,
        href: calibrationsLink({ model: name, kind: 'as-found', verdict: 'outside' }),
      })),
    'Family',
  );

export const overdueFigure = (rows: readonly MonthCount[]): Figure => ({
  shape: {
    kind: 'months',
    labels: rows.map(({ month }) => shortMonth(month)),
    values: rows.map(({ count }) => count),
    unit: '',
    links: rows.map(() => dueLink('overdue')),
  },
  table: {
    header: ['Month', 'Overdue at its end'],
    rows: rows.map(({ month, count }, index) => ({
      cells: [monthWords(month), String(count)],
      href: index === rows.length - 1 ? dueLink('overdue') : null,
    })),
  },
});

export function workloadFigure(rows: readonly Workload[]): Figure {
  const linkOf = (month: string) => dueLink(month === 'overdue' ? 'overdue' : month.slice(0, 7));
  const named = (month: string, words: (month: string) => string) =>
    month === 'overdue' ? 'overdue' : words(month);
  return {
    shape: {
      kind: 'months',
      labels: rows.map(({ month }) => named(month, shortMonth)),
      values: rows.map(({ hours }) => Number(hours.toFixed(1))),
      unit: 'h',
      links: rows.map(({ month }) => linkOf(month)),
    },
    table: {
      header: ['Month', 'Instruments due', 'Hours expected'],
      rows: rows.map(({ month, count, hours }) => ({
        cells: [named(month, monthWords), String(count), formatFixed(hours, 1)],
        href: linkOf(month),
      })),
    },
  };
}

const namedFigure = (
  rows: readonly {
    readonly words: string;
    readonly count: number;
    readonly more?: readonly string[];
    readonly href: string;
  }[],
  header: readonly string[],
): Figure => ({
  shape: {
    kind: 'names',
    labels: rows.map(({ words }) => words),
    values: rows.map(({ count }) => count),
    unit: '',
    links: rows.map(({ href }) => href),
  },
  table: {
    header,
    rows: rows.map(({ words, count, more = [], href }) => ({ cells: [words, String(count), ...more], href })),
  },
});

const wordOf = (words: Readonly<Record<string, string>>, name: string): string => words[name] ?? name;

export const adjustedFigure = (rows: readonly Named[], from: string): Figure =>
  namedFigure(
    rows.map(({ name, count }) => ({
      words: wordOf(ADJUSTMENT_WORD, name),
      count,
      href: calibrationsLink({ adjusted: name, from, kind: 'as-found' }),
    })),
    ['Adjusted', 'Jobs'],
  );

export const causesFigure = (rows: readonly Named[], from: string): Figure =>
  namedFigure(
    rows.map(({ name, count }) => ({
      words: wordOf(SUSPICION_NAMES, name),
      count,
      href: calibrationsLink({ cause: name, from }),
    })),
    ['Found behind readings', 'Jobs'],
  );

export const referencesFigure = (rows: readonly ReferenceUse[], from: string, today: string): Figure =>
  namedFigure(
    rows.map(({ name, count, out, dueOn }) => ({
      words: name,
      count,
      more: [String(out), dueOn === null ? 'not in the register' : dueInWords(dueOn, today)],
      href: calibrationsLink({ standard: name, from }),
    })),
    ['Reference', 'Runs', 'As found outside', 'Its certificate runs out'],
  );

/** The first day of a period that ends today. */
export const periodFrom = (today: string, months: number): string => monthBefore(today, months - 1);

export const hoursWords = (hours: number): string => `${formatPlain(Number(hours.toFixed(1)))} h`;
