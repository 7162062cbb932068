/**
 * What can be wrong with a request to the core, as data: a code and the facts.
 * `describeProblem` holds all the wording, so that a field, an API answer and a log say the same.
 */
export type Problem =
  | { code: 'not-finite'; name: string; value: number }
  | { code: 'zero-span'; name: string; value: number }
  | { code: 'not-positive'; name: string; value: number }
  | { code: 'out-of-bounds'; name: string; value: number; lowest: number; highest: number; unit: string }
  | { code: 'too-few-points'; count: number; least: number }
  | { code: 'not-a-number'; text: string }
  | { code: 'two-decimal-signs'; text: string }
  | { code: 'too-many-digits'; text: string; most: number }
  | { code: 'nothing-typed' };

/** Thrown by every public function of the core on input that it refuses. */
export class CoreError extends Error {
  readonly problem: Problem;
  constructor(problem: Problem) {
    super(describeProblem(problem));
    this.name = 'CoreError';
    this.problem = problem;
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
    case 'out-of-bounds':
      return `${problem.name} must be from ${problem.lowest} to ${problem.highest} ${problem.unit}, not ${problem.value}.`;
    case 'too-few-points':
      return `At least ${problem.least} test points are needed, not ${problem.count}.`;
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
export function requireFinite(name: string, value: number): void {
  if (!Number.isFinite(value)) throw new CoreError({ code: 'not-finite', name, value });
}

/** Refuses zero, negative and non-finite values by name. */
export function requirePositive(name: string, value: number): void {
  requireFinite(name, value);
  if (value <= 0) throw new CoreError({ code: 'not-positive', name, value });
}
