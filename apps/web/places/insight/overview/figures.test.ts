import { describe, expect, it } from 'vitest';
import {
  adjustedFigure,
  causesFigure,
  familiesFigure,
  foundFigure,
  overdueFigure,
  referencesFigure,
  workloadFigure,
} from './figures';

const plain = (cells: readonly string[] | undefined) => cells?.map((cell) => cell.replaceAll('\u00a0', ' '));

describe('the figures of insight', () => {
  it('have a part with its exact bounds, or nothing where nothing was found, and the list behind each', () => {
    const { shape, table } = foundFigure([
      { month: '2026-02-01', calibrations: 20, out: 1, adjust: 3 },
      { month: '2026-03-01', calibrations: 0, out: 0, adjust: 0 },
    ]);
    expect(shape).toMatchObject({ labels: ['Feb 26', 'Mar 26'], values: [95, null], most: 100, unit: '%' });
    // Clopper and Pearson, 19 of 20.
    expect(shape.bounds?.[0]?.map((bound) => bound.toFixed(2))).toEqual(['75.13', '99.87']);
    expect(shape.bounds?.[1]).toBeNull();
    expect(plain(table.rows[0]?.cells)).toEqual(['Feb 2026', '20', '1', '95.0 %', '75 % … 99.9 %']);
    expect(plain(table.rows[1]?.cells)).toEqual(['Mar 2026', '0', '0', '—', '—']);
    expect(table.rows[0]?.href).toBe('/insight/calibrations?from=2026-02-01&to=2026-02-28&kind=as-found');
  });

  it('leave out families that say nothing yet', () => {
    const sums = [
      { name: 'Few', calibrations: 19, out: 9 },
      { name: 'Many & more', calibrations: 40, out: 4 },
    ];
    const { shape } = familiesFigure(sums, 20);
    expect(shape.labels).toEqual(['Many & more']);
    expect(shape.links).toEqual(['/insight/calibrations?model=Many+%26+more&kind=as-found&verdict=outside']);
  });

  it('lead from a month ahead to what comes due in it, and from what is overdue to that', () => {
    const { shape, table } = workloadFigure([
      { month: 'overdue', count: 2, hours: 2.25 },
      { month: '2026-05-01', count: 3, hours: 0 },
    ]);
    expect(shape.labels).toEqual(['overdue', 'May 26']);
    expect(shape.links).toEqual([
      '/instruments?state=in+service&due=overdue',
      '/instruments?state=in+service&due=2026-05',
    ]);
    expect(table.rows.map(({ cells }) => cells)).toEqual([
      ['overdue', '2', '2.3'],
      ['May 2026', '3', '0.0'],
    ]);
    expect(overdueFigure([{ month: '2026-04-01', count: 4 }]).table.rows[0]?.href).toContain('due=overdue');
  });

  it('name adjustments, causes and references as people know them', () => {
    expect(adjustedFigure([{ name: 'sensor trim', count: 3 }], '2026-01-01').shape.labels).toEqual([
      'Sensor trim',
    ]);
    expect(causesFigure([{ name: 'friction', count: 1 }], '2026-01-01').table.rows[0]?.href).toBe(
      '/insight/calibrations?cause=friction&from=2026-01-01',
    );
    const { table } = referencesFigure(
      [
        { name: 'PC-1', count: 4, out: 1, dueOn: '2026-05-11' },
        { name: 'PC-00', count: 2, out: 0, dueOn: null },
      ],
      '2026-01-01',
      '2026-05-04',
    );
    expect(table.rows.map(({ cells }) => cells)).toEqual([
      ['PC-1', '4', '1', 'in 7 days'],
      ['PC-00', '2', '0', 'not in the register'],
    ]);
  });
});
