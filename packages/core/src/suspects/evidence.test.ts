import { det, inv, multiply } from 'mathjs';
import { describe, expect, it } from 'vitest';
import { CASE, line, read, suspect, WAY } from './test/case';

/**
 * The evidence by another way: where all is in a line, what a parameter may be is one more column of the covariance (Rasmussen and
 * Williams, Gaussian Processes, 2.2, from memory), and the density is written down with mathjs.
 */
describe('the evidence', () => {
  const L = 0.5;
  const shares = WAY.map(([x]) => x / 500);
  const columns = [
    shares.map(() => 0.25 * L),
    shares.map((t) => 0.25 * L * t),
    shares.map(() => 0.1 * L),
    shares.map((t) => 0.1 * L * t),
    shares.map((t) => 0.08 * L * 4 * t * (1 - t)),
  ];
  /** A play of 0.06 limits, come to from below, and freed by nothing. */
  const play = WAY.map((_one, i) => (i > 4 ? 1 : -1) * 0.06 * L);
  const density = (errors: readonly number[], extra: readonly (readonly number[])[]): number => {
    const scatters = [0.5, 1, 2, 4, 8].map((by) => by * 0.04 * L);
    const weights = [0.2, 0.35, 0.25, 0.13, 0.07];
    return scatters.reduce((sum, scatter, k) => {
      const covariance = shares.map((_a, i) =>
        shares.map(
          (_b, j) =>
            [...columns, play, ...extra].reduce(
              (all, column) => all + (column[i] ?? 0) * (column[j] ?? 0),
              0,
            ) + (i === j ? scatter ** 2 * (1 + 0.7 ** 2) : 0),
        ),
      );
      // In thousandths, since mathjs takes a determinant of tiny numbers for nothing.
      const fine = covariance.map((row) => row.map((value) => value * 1e6));
      const thousandths = errors.map((one) => one * 1e3);
      const square = Number(multiply(multiply(thousandths, inv(fine)), thousandths));
      return sum + (weights[k] ?? 0) * Math.exp(-square / 2) * Math.pow(det(fine), -0.5);
    }, 0);
  };

  it.each([
    ['zero', 0.104, [shares.map(() => 1.25)]],
    ['gain', 0.03, [shares.map((t) => 1.25 * t)]],
  ] as const)('of a %s beside that of nothing', (suspicion, shift, extra) => {
    const readings = read((x) => line(x) + shift * (suspicion === 'gain' ? x / 250 : 1));
    const errors = readings.map(({ applied, output }) => ((output - line(applied)) / 16) * 100);
    const suspected = { ...CASE, readings };
    const got = suspect(suspected, suspicion).fit.logEvidence - suspect(suspected, 'nothing').fit.logEvidence;
    const wanted = Math.log(density(errors, extra)) - Math.log(density(errors, []));
    expect(Math.abs(got - wanted)).toBeLessThan(0.1);
  });
});
