/** Normal numbers that hang together: what the Cholesky factor of their covariance gives. Textbook linear algebra. */

/** A symmetric matrix, row by row. */
export interface Symmetric {
  readonly size: number;
  readonly cells: Float64Array;
}

export const symmetric = (size: number): Symmetric => ({ size, cells: new Float64Array(size * size) });

/** Below this a pivot is rounding. */
const LEAST_PIVOT = 1e-18;

/** Puts the lower Cholesky factor into the matrix itself and gives the logarithm of its determinant. */
function factorise({ size, cells }: Symmetric): number {
  let logDeterminant = 0;
  for (let i = 0; i < size; i += 1)
    for (let j = 0; j <= i; j += 1) {
      let sum = cells[i * size + j] as number;
      for (let k = 0; k < j; k += 1) sum -= (cells[i * size + k] as number) * (cells[j * size + k] as number);
      if (i === j) {
        const pivot = Math.max(sum, LEAST_PIVOT);
        logDeterminant += Math.log(pivot);
        cells[i * size + i] = Math.sqrt(pivot);
      } else cells[i * size + j] = sum / (cells[j * size + j] as number);
    }
  return logDeterminant;
}

/** L y = b. */
function forward({ size, cells }: Symmetric, right: ArrayLike<number>): Float64Array {
  const y = new Float64Array(size);
  for (let i = 0; i < size; i += 1) {
    let sum = right[i] ?? 0;
    for (let k = 0; k < i; k += 1) sum -= (cells[i * size + k] as number) * (y[k] as number);
    y[i] = sum / (cells[i * size + i] as number);
  }
  return y;
}

/**
 * Twice the negative logarithm of the density of numbers with mean zero: x' C^-1 x + ln det C, without the n ln 2 pi that is one
 * and the same for all. The matrix is used up.
 */
export function deviance(covariance: Symmetric, values: ArrayLike<number>): number {
  let total = factorise(covariance);
  const { size, cells } = covariance;
  // Row by row, and what is solved takes the place of the row above the diagonal, so that nothing is allocated.
  for (let i = 0; i < size; i += 1) {
    let sum = values[i] ?? 0;
    for (let k = 0; k < i; k += 1)
      sum -= (cells[i * size + k] as number) * (cells[k * size + size - 1] as number);
    const y = sum / (cells[i * size + i] as number);
    total += y * y;
    if (i < size - 1) cells[i * size + size - 1] = y;
  }
  return total;
}

/** Solves C x = b, and gives the logarithm of the determinant of C. */
export function solve(
  matrix: readonly (readonly number[])[],
  right: readonly number[],
): { readonly x: number[]; readonly logDeterminant: number } {
  const size = right.length;
  const factor = symmetric(size);
  matrix.forEach((row, i) => row.forEach((value, j) => (factor.cells[i * size + j] = value)));
  const logDeterminant = factorise(factor);
  const y = forward(factor, right);
  const x = new Array<number>(size).fill(0);
  for (let i = size - 1; i >= 0; i -= 1) {
    let sum = y[i] as number;
    for (let k = i + 1; k < size; k += 1) sum -= (factor.cells[k * size + i] as number) * (x[k] as number);
    x[i] = sum / (factor.cells[i * size + i] as number);
  }
  return { x, logDeterminant };
}
