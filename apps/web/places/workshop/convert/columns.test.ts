import { describe, expect, it } from 'vitest';
import { cellsOf, MERCURY_ROWS, WATER_ROWS } from './columns';

describe('references side by side', () => {
  it('differ by 0.18 % between water at 4 and at 20 °C', () => {
    const [inches] = WATER_ROWS;
    if (inches === undefined) throw new Error('no row');
    const cells = cellsOf(inches, 25, 'kPa');
    // NIST SP 811: 249.082 and 248.642 Pa (the latter from 998.207 kg/m3), from memory.
    expect(cells[0]?.value).toBeCloseTo(25000 / 249.082, 3);
    expect(cells[0]?.differencePercent).toBe(0);
    expect(cells[2]?.differencePercent).toBeCloseTo(0.1768, 3);
    expect(cells[3]?.differencePercent).toBeCloseTo(-0.0028, 4);
  });

  it('say so of nothing as well, and leave out what is not in use', () => {
    const [millimetres] = WATER_ROWS.filter(({ name }) => name === 'mmH2O');
    if (millimetres === undefined) throw new Error('no row');
    const cells = cellsOf(millimetres, 0, 'bar');
    expect(cells.map((cell) => cell?.value)).toEqual([0, undefined, 0, 0]);
    expect(cells[2]?.differencePercent).toBeGreaterThan(0.17);
  });

  it('of mercury differ by 0.28 % between 0 °C and 60 °F', () => {
    const [inches] = MERCURY_ROWS;
    if (inches === undefined) throw new Error('no row');
    expect(cellsOf(inches, 1, 'bar')[1]?.differencePercent).toBeCloseTo(0.2825, 3);
  });
});
