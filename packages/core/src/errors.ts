/**
 * What can be wrong with a request to the core, as data: a code and the facts.
 * `describeProblem` holds all the wording, so that a field, an API answer and a log say the same.
 */
export type Problem =
  | { code: 'not-finite'; name: string; value: number }
  | { code: 'zero-span'; name: string; value: number }
  | { code: 'not-positive'; name: string; value: number }
  | { code: 'negative'; name: string; value: number }
  | { code: 'too-small'; name: string; value: number; least: number; unit: string }
  | { code: 'out-of-bounds'; name: string; value: number; lowest: number; highest: number; unit: string }
  | { code: 'not-whole'; name: string; value: number; least: number }
  | { code: 'reversed-limits'; name: string; lower: number; upper: number }
  | { code: 'missing'; name: string; why: string }
  | { code: 'too-few-points'; count: number; least: number }
  | { code: 'too-many'; name: string; count: number; most: number }
  | { code: 'not-rising'; name: string }
  | { code: 'unknown-unit'; text: string }
  | { code: 'ambiguous-unit'; text: string; choices: readonly string[] }
  | { code: 'wrong-unit-kind'; unit: string; is: string; wanted: string }
  | { code: 'no-such-conversion'; from: string; to: string; why: string }
  | { code: 'not-a-model'; text: string; why: string }
  | { code: 'unknown-name'; name: string; known: readonly string[] }
  | { code: 'same-name'; name: string }
  | { code: 'reserved-name'; name: string }
  | { code: 'no-correlation-matrix'; why: string }
  | { code: 'undefined-result'; name: string; why: string }
  | { code: 'not-a-number'; text: string }
  | { code: 'two-decimal-signs'; text: string }
  | { code: 'too-many-digits'; text: string; most: number }
  | { code: 'nothing-typed' };

/** Thrown by every public function of the core on input that it refuses. */
export class CoreError extends Error {
  readonly problem: Problem;
  /** The argument to put right, where the problem lies in one: `urv`, `correlations`. */
  readonly field: string | undefined;
  constructor(problem: Problem, field?: string) {
    super(describeProblem(problem));
    this.name = 'CoreError';
    this.problem = problem;
    this.field = field;
  }
}

/** Does a part of some work whose fields lie inside a field of the whole. */
export function within<T>(field: string, work: () => T): T {
  try {
    return work();
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    throw new CoreError(error.problem, error.field === undefined ? field : `${field}.${error.field}`);
  }
}

/** The problem in words that say what would be right. */
export function describeProblem(problem: Problem): string {
  switch (problem.code) {
    case 'not-finite':
      return `${problem.name} must be a finite number, not ${problem.value}.`;
    case 'zero-span':
      return `${problem.name} has no span: its lower and upper values are both ${problem.value}.`;
    case 'not-positive':
      return `${problem.name} must be greater than zero, not ${problem.value}.`;
    case 'negative':
      return `${problem.name} must not be negative; ${problem.value} was given.`;
    case 'too-small':
      return `${problem.name} must be at least ${problem.least}${problem.unit === '' ? '' : ` ${problem.unit}`}, not ${problem.value}.`;
    case 'out-of-bounds':
      return `${problem.name} must be from ${problem.lowest} to ${problem.highest} ${problem.unit}, not ${problem.value}.`;
    case 'not-whole':
      return `${problem.name} must be a whole number of at least ${problem.least}, not ${problem.value}.`;
    case 'reversed-limits':
      return `${problem.name}: the lower limit ${problem.lower} must be below the upper limit ${problem.upper}.`;
    case 'missing':
      return `${problem.name} is needed: ${problem.why}.`;
    case 'too-few-points':
      return `At least ${problem.least} test points are needed, not ${problem.count}.`;
    case 'too-many':
      return `${problem.name}: at most ${problem.most} are taken, not ${problem.count}.`;
    case 'not-rising':
      return `${problem.name} must rise from each point to the next.`;
    case 'unknown-unit':
      return `"${problem.text}" is not a unit that Barys knows.`;
    case 'ambiguous-unit':
      return `"${problem.text}" can mean more than one unit. Say which: ${problem.choices.join(', ')}.`;
    case 'wrong-unit-kind':
      return `${problem.unit} is a unit of ${problem.is}, not of ${problem.wanted}.`;
    case 'no-such-conversion':
      return `${problem.from} cannot be given as ${problem.to}: ${problem.why}.`;
    case 'not-a-model':
      return `"${problem.text}" is not a formula that can be computed: ${problem.why}.`;
    case 'unknown-name':
      return `The formula uses "${problem.name}", which is none of its inputs (${problem.known.join(', ')}).`;
    case 'same-name':
      return `Two inputs are both called "${problem.name}". Each needs a name of its own.`;
    case 'reserved-name':
      return `"${problem.name}" already has a meaning in formulas. Give the input another name.`;
    case 'no-correlation-matrix':
      return `These correlations cannot all hold: ${problem.why}.`;
    case 'undefined-result':
      return `${problem.name} has no value here: ${problem.why}.`;
    case 'not-a-number':
      return `"${problem.text}" is not a number. Type digits with one decimal point or comma.`;
    case 'two-decimal-signs':
      return `"${problem.text}" has more than one decimal sign. Leave out the thousands sign.`;
    case 'too-many-digits':
      return `"${problem.text}" has more than ${problem.most} significant digits.`;
    case 'nothing-typed':
      return 'Type a number.';
  }
}

/** Refuses NaN and infinities by name. */
export function requireFinite(name: string, value: number, field?: string): void {
  if (!Number.isFinite(value)) throw new CoreError({ code: 'not-finite', name, value }, field);
}

/** Refuses zero, negative and non-finite values by name. */
export function requirePositive(name: string, value: number, field?: string): void {
  requireFinite(name, value, field);
  if (value <= 0) throw new CoreError({ code: 'not-positive', name, value }, field);
}

/** Refuses negative and non-finite values by name; zero is taken. */
export function requireNotNegative(name: string, value: number, field?: string): void {
  requireFinite(name, value, field);
  if (value < 0) throw new CoreError({ code: 'negative', name, value }, field);
}

/** Refuses a value below the least one, which itself is taken. */
export function requireAtLeast(
  name: string,
  value: number,
  [least, unit]: readonly [least: number, unit: string],
  field?: string,
): void {
  requireFinite(name, value, field);
  if (value < least) throw new CoreError({ code: 'too-small', name, value, least, unit }, field);
}

/** Refuses a value outside lowest..highest, both ends taken. */
export function requireBetween(
  name: string,
  value: number,
  [lowest, highest, unit]: readonly [lowest: number, highest: number, unit: string],
  field?: string,
): void {
  requireFinite(name, value, field);
  if (value < lowest || value > highest)
    throw new CoreError({ code: 'out-of-bounds', name, value, lowest, highest, unit }, field);
}

/** Refuses anything but a whole number from `least` up. */
export function requireWhole(name: string, value: number, least: number, field?: string): void {
  if (!Number.isSafeInteger(value) || value < least)
    throw new CoreError({ code: 'not-whole', name, value, least }, field);
}
