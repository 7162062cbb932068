import { det, inv, multiply } from 'mathjs';
import { describe, expect, it } from 'vitest';
import { deviance, solve, symmetric } from './index';

const MATRIX = [
  [4, 1, 0.5, 0],
  [1, 3, 0.2, 0.1],
  [0.5, 0.2, 2, 0.7],
  [0, 0.1, 0.7, 1.5],
];
const VALUES = [0.3, -1.2, 2.5, 0.4];

describe('numbers that hang together, against mathjs', () => {
  it('gives the deviance of a normal density', () => {
    const matrix = symmetric(4);
    MATRIX.forEach((row, i) => row.forEach((value, j) => (matrix.cells[i * 4 + j] = value)));
    const square = Number(multiply(multiply(VALUES, inv(MATRIX)), VALUES));
    expect(deviance(matrix, VALUES)).toBeCloseTo(square + Math.log(det(MATRIX)), 12);
  });

  it('solves', () => {
    const { x, logDeterminant } = solve(MATRIX, VALUES);
    const wanted = multiply(inv(MATRIX), VALUES);
    x.forEach((value, i) => expect(value).toBeCloseTo(wanted[i] ?? NaN, 12));
    expect(logDeterminant).toBeCloseTo(Math.log(det(MATRIX)), 12);
  });

  it('takes one number', () => {
    const matrix = symmetric(1);
    matrix.cells[0] = 4;
    expect(deviance(matrix, [3])).toBeCloseTo(9 / 4 + Math.log(4), 12);
  });
});
