/** The operations that a formula may use, each with its partial derivatives. */
import normalCdf from '@stdlib/stats-base-dists-normal-cdf';

export interface Operation {
  readonly arity: 1 | 2;
  readonly value: (a: number, b: number) => number;
  /** Partial derivatives at a and b; y is the value there. */
  readonly slopes: (a: number, b: number, y: number) => readonly [da: number, db: number];
}

const unary = (value: (a: number) => number, slope: (a: number, y: number) => number): Operation => ({
  arity: 1,
  value: (a) => value(a),
  slopes: (a, _b, y) => [slope(a, y), 0],
});
const binary = (value: Operation['value'], slopes: Operation['slopes']): Operation => ({
  arity: 2,
  value,
  slopes,
});

export const OPERATIONS = {
  add: binary(
    (a, b) => a + b,
    () => [1, 1],
  ),
  subtract: binary(
    (a, b) => a - b,
    () => [1, -1],
  ),
  multiply: binary(
    (a, b) => a * b,
    (a, b) => [b, a],
  ),
  divide: binary(
    (a, b) => a / b,
    (_a, b, y) => [1 / b, -y / b],
  ),
  pow: binary(
    (a, b) => a ** b,
    // A constant exponent needs no logarithm, and a negative base has none.
    (a, b, y) => [b * a ** (b - 1), a > 0 ? y * Math.log(a) : 0],
  ),
  max: binary(Math.max, (a, b) => (a >= b ? [1, 0] : [0, 1])),
  min: binary(Math.min, (a, b) => (a <= b ? [1, 0] : [0, 1])),
  unaryMinus: unary(
    (a) => -a,
    () => -1,
  ),
  sqrt: unary(Math.sqrt, (_a, y) => 0.5 / y),
  exp: unary(Math.exp, (_a, y) => y),
  ln: unary(Math.log, (a) => 1 / a),
  sin: unary(Math.sin, Math.cos),
  cos: unary(Math.cos, (a) => -Math.sin(a)),
  tan: unary(Math.tan, (_a, y) => 1 + y * y),
  abs: unary(Math.abs, Math.sign),
  /** Distribution function of the standard normal. */
  Phi: unary(
    (a) => normalCdf(a, 0, 1),
    (a) => Math.exp(-0.5 * a * a) / Math.sqrt(2 * Math.PI),
  ),
} as const satisfies Record<string, Operation>;

export type OperationName = keyof typeof OPERATIONS;

/** Names under which a formula may call an operation, beside the signs + - * / ^. */
export const FUNCTIONS: Readonly<Record<string, OperationName>> = {
  max: 'max',
  min: 'min',
  sqrt: 'sqrt',
  exp: 'exp',
  ln: 'ln',
  log: 'ln',
  sin: 'sin',
  cos: 'cos',
  tan: 'tan',
  abs: 'abs',
  Phi: 'Phi',
};

/** Words that the parser reads as values or signs, so that no input can be called by them. */
const WORDS = 'true false null undefined NaN Infinity mod to in and or xor not end'.split(' ');

/** Whether a name already means something in a formula. */
export const isReservedName = (name: string): boolean =>
  WORDS.includes(name) || Object.hasOwn(CONSTANTS, name);

export const CONSTANTS: Readonly<Record<string, number>> = { pi: Math.PI };
