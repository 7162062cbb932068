/** Stated correlations between the inputs of a budget, as a matrix that can be one. */
import { CoreError, requireBetween } from '../errors';

export interface Correlation {
  readonly a: string;
  readonly b: string;
  readonly r: number;
}

/** Rounding of stated correlations, such as r = 1 between ten inputs, may leave a pivot this far below zero. */
const PIVOT_SLACK = 1e-9;

/**
 * The correlation matrix of the inputs and its lower Cholesky factor.
 * @throws CoreError `unknown-name`, `out-of-bounds`, `no-correlation-matrix` where the correlations contradict each other
 */
export function correlationMatrix(
  names: readonly string[],
  correlations: readonly Correlation[],
): { readonly matrix: readonly (readonly number[])[]; readonly factor: readonly (readonly number[])[] } {
  const refuse = (why: string): never => {
    throw new CoreError({ code: 'no-correlation-matrix', why }, 'correlations');
  };
  const matrix = names.map((_, row) => names.map((__, column): number => (row === column ? 1 : 0)));
  const seen = new Set<string>();
  for (const { a, b, r } of correlations) {
    const [i, j] = [names.indexOf(a), names.indexOf(b)];
    const unknown = i === -1 ? a : b;
    if (i === -1 || j === -1)
      throw new CoreError({ code: 'unknown-name', name: unknown, known: names }, 'correlations');
    if (i === j) return refuse(`"${a}" is always correlated with itself by 1`);
    requireBetween(`The correlation of ${a} and ${b}`, r, [-1, 1, ''], 'correlations');
    const pair = `${Math.min(i, j)} ${Math.max(i, j)}`;
    if (seen.has(pair)) return refuse(`${a} and ${b} are stated twice`);
    seen.add(pair);
    for (const [row, column] of [
      [i, j],
      [j, i],
    ] as const) {
      const line = matrix[row];
      if (line !== undefined) line[column] = r;
    }
  }
  const factor = names.map(() => names.map(() => 0));
  const get = (rows: readonly (readonly number[])[], i: number, j: number) => rows[i]?.[j] ?? 0;
  names.forEach((name, i) => {
    for (let j = 0; j <= i; j += 1) {
      let rest = get(matrix, i, j);
      for (let k = 0; k < j; k += 1) rest -= get(factor, i, k) * get(factor, j, k);
      const line = factor[i];
      if (line === undefined) continue;
      if (i !== j) {
        const pivot = get(factor, j, j);
        if (pivot === 0 && Math.abs(rest) > Math.sqrt(PIVOT_SLACK))
          refuse(`${name} would have to vary more than it can to agree with the others`);
        line[j] = pivot === 0 ? 0 : rest / pivot;
      } else {
        if (rest < -PIVOT_SLACK)
          refuse(`${name} would have to vary more than it can to agree with the others`);
        line[j] = rest <= PIVOT_SLACK ? 0 : Math.sqrt(rest);
      }
    }
  });
  return { matrix, factor };
}
