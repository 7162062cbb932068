/** Running a formula's tape: once, with its gradient, or over a block of trials. */
import { CoreError } from '../errors';
import { OPERATIONS, type OperationName } from './operations';
import type { Formula } from './parse';

export type Values = Readonly<Record<string, number>>;

function registersOf(formula: Formula, values: Values): number[] {
  const registers = formula.names.map((name) => {
    const value = Object.hasOwn(values, name) ? values[name] : undefined;
    if (value === undefined)
      throw new CoreError({ code: 'unknown-name', name, known: Object.keys(values) }, 'model');
    return value;
  });
  registers.push(...formula.constants);
  for (const { operation, a, b } of formula.steps)
    registers.push(OPERATIONS[operation].value(registers[a] ?? 0, registers[b] ?? 0));
  return registers;
}

const undefinedResult = (why: string): CoreError =>
  new CoreError({ code: 'undefined-result', name: 'The formula', why }, 'model');

/**
 * The value of a formula.
 * @throws CoreError `unknown-name`, `undefined-result` where it divides by zero or leaves the reals
 */
export function evaluateFormula(formula: Formula, values: Values): number {
  const value = registersOf(formula, values)[formula.result] ?? NaN;
  if (!Number.isFinite(value))
    throw undefinedResult('at these values it divides by zero or has no real value');
  return value;
}

/**
 * The value and the partial derivative by each name, by one pass backwards over the tape: exact, without differences.
 * @throws CoreError as `evaluateFormula`, and `undefined-result` where a slope has no bound
 */
export function gradientOf(
  formula: Formula,
  values: Values,
): { readonly value: number; readonly partials: Values } {
  const registers = registersOf(formula, values);
  const value = registers[formula.result] ?? NaN;
  if (!Number.isFinite(value))
    throw undefinedResult('at these values it divides by zero or has no real value');
  const slopes = new Array<number>(registers.length).fill(0);
  slopes[formula.result] = 1;
  const first = registers.length - formula.steps.length;
  for (let index = formula.steps.length - 1; index >= 0; index -= 1) {
    const step = formula.steps[index];
    const above = slopes[first + index] ?? 0;
    if (step === undefined || above === 0) continue;
    const operation = OPERATIONS[step.operation];
    const [da, db] = operation.slopes(
      registers[step.a] ?? 0,
      registers[step.b] ?? 0,
      registers[first + index] ?? 0,
    );
    slopes[step.a] = (slopes[step.a] ?? 0) + above * da;
    if (operation.arity === 2) slopes[step.b] = (slopes[step.b] ?? 0) + above * db;
  }
  const partials = Object.fromEntries(formula.names.map((name, index) => [name, slopes[index] ?? 0]));
  if (Object.values(partials).some((slope) => !Number.isFinite(slope)))
    throw undefinedResult('its slope has no bound here; use the Monte Carlo result');
  return { value, partials };
}

type Block = Float64Array;

/** The signs have loops of their own, since a call for each trial would cost more than the arithmetic. */
const LOOPS: Partial<Record<OperationName, (a: Block, b: Block, out: Block, count: number) => void>> = {
  add: (a, b, out, count) => {
    for (let i = 0; i < count; i += 1) out[i] = (a[i] as number) + (b[i] as number);
  },
  subtract: (a, b, out, count) => {
    for (let i = 0; i < count; i += 1) out[i] = (a[i] as number) - (b[i] as number);
  },
  multiply: (a, b, out, count) => {
    for (let i = 0; i < count; i += 1) out[i] = (a[i] as number) * (b[i] as number);
  },
  divide: (a, b, out, count) => {
    for (let i = 0; i < count; i += 1) out[i] = (a[i] as number) / (b[i] as number);
  },
};

/**
 * A formula made ready for blocks of trials.
 * @param columns values of each of the formula's names, in their order, at least `size` long
 * @returns runs the tape over the first `count` trials of the columns and gives the results, valid until the next call
 */
export function blockEvaluator(
  formula: Formula,
  columns: readonly Block[],
  size: number,
): (count: number) => Block {
  const registers: Block[] = [
    ...columns,
    ...formula.constants.map((value) => new Float64Array(size).fill(value)),
    ...formula.steps.map(() => new Float64Array(size)),
  ];
  const first = registers.length - formula.steps.length;
  const at = (index: number): Block => registers[index] ?? new Float64Array(size);
  const program = formula.steps.map(({ operation, a, b }, index) => {
    const [left, right, out] = [at(a), at(b), at(first + index)];
    const loop = LOOPS[operation];
    if (loop !== undefined) return (count: number) => loop(left, right, out, count);
    const { value } = OPERATIONS[operation];
    return (count: number) => {
      for (let i = 0; i < count; i += 1) out[i] = value(left[i] as number, right[i] as number);
    };
  });
  return (count) => {
    for (const step of program) step(count);
    return at(formula.result);
  };
}
