/**
 * Show the working: a result as the steps that led to it. A step's value is made by evaluating the very formula that it
 * shows, at the very values that it shows, so that a working and its result cannot part.
 */
import { CoreError } from '../errors';
import { evaluateFormula, formulaTex, parseFormula, symbolTex, type Formula } from '../formula';
import { formatSignificant } from '../text';

export interface Given {
  readonly value: number;
  /** As written for people; empty for a plain number. */
  readonly unit: string;
}

export interface Step extends Given {
  /** What the step finds, in words. */
  readonly what: string;
  /** Name of the result; later steps may use it. */
  readonly symbol: string;
  /** Right side of the equation, in the names of `given`. */
  readonly formula: string;
  readonly given: Readonly<Record<string, Given>>;
  /** What a numerical method solves, in LaTeX, where the value is taken over from it and no formula gives it. */
  readonly notation?: string;
  /** Standard and clause, or "common practice"; "from memory" where no document was at hand. */
  readonly source: string;
}

export interface Worked {
  readonly value: number;
  readonly working: readonly Step[];
}

/** Formulas of workings come back many times; parsing them takes longer than all the rest. */
const parsed = new Map<string, Formula>();
const MOST_PARSED = 500;

function formulaOf(text: string): Formula {
  const known = parsed.get(text);
  if (known !== undefined) return known;
  const formula = parseFormula(text, Infinity);
  if (parsed.size >= MOST_PARSED) parsed.clear();
  parsed.set(text, formula);
  return formula;
}

/** Gathers the steps of one calculation; each sees the results of those before it by their symbols. */
export class Working {
  readonly steps: Step[];

  /** @param before steps to go on from */
  constructor(before: readonly Step[] = []) {
    this.steps = [...before];
  }

  /**
   * Takes a step and gives its value.
   * @throws CoreError `unknown-name`, `undefined-result`
   */
  step(step: Omit<Step, 'value' | 'given'> & { readonly given?: Readonly<Record<string, Given>> }): number {
    const formula = formulaOf(step.formula);
    const earlier = Object.fromEntries(this.steps.map((one) => [one.symbol, one]));
    const known: Record<string, Given> = { ...earlier, ...step.given };
    const given = Object.fromEntries(
      formula.names.flatMap((name) => {
        const quantity = known[name];
        return quantity === undefined ? [] : [[name, { value: quantity.value, unit: quantity.unit }]];
      }),
    );
    const values = Object.fromEntries(Object.entries(given).map(([name, { value }]) => [name, value]));
    const value = evaluateFormula(formula, values) + 0;
    this.steps.push({ ...step, given, value });
    return value;
  }

  /** Takes a step if its formula has a value at these figures; says whether it did. */
  tryStep(step: Parameters<Working['step']>[0]): boolean {
    try {
      this.step(step);
      return true;
    } catch (error) {
      if (error instanceof CoreError) return false;
      throw error;
    }
  }
}

const DIGITS = 10;

function numberTex(value: number): string {
  const [mantissa = '', exponent] = formatSignificant(value, DIGITS).replace('\u2212', '-').split('e');
  return exponent === undefined ? mantissa : `${mantissa}\\cdot 10^{${Number(exponent)}}`;
}

const unitTex = (unit: string): string =>
  unit === ''
    ? ''
    : `\\,\\mathrm{${unit.replace(/%/g, '\\%').replace(/ /g, '\\ ').replace(/²/g, '^2').replace(/³/g, '^3').replace(/°/g, '^\\circ ').replace(/µ/g, '\\mu ').replace(/Ω/g, '\\Omega ')}}`;

/** A number with its unit. */
const quantityTex = ({ value, unit }: Given): string => {
  const number = `${numberTex(value)}${unitTex(unit)}`;
  return value < 0 ? `\\left(${number}\\right)` : number;
};

export interface StepTex {
  /** symbol = formula in symbols; empty of a figure that is only taken over */
  readonly symbols: string;
  /** the same with numbers and units; empty likewise */
  readonly numbers: string;
  /** symbol = value and unit */
  readonly result: string;
}

function symbolsTex({ notation }: Step, left: string, formula: Formula): string {
  if (notation !== undefined) return `${left} = ${notation}`;
  return formula.names.length === 0 ? '' : `${left} = ${formulaTex(formula, symbolTex)}`;
}

/** A step in the notation of LaTeX. */
export function stepTex(step: Step): StepTex {
  const formula = formulaOf(step.formula);
  const left = symbolTex(step.symbol);
  return {
    symbols: symbolsTex(step, left, formula),
    // With one name and no operation the numbers would say the result twice.
    numbers:
      formula.steps.length === 0
        ? ''
        : `${left} = ${formulaTex(formula, (name) => quantityTex(step.given[name] ?? { value: NaN, unit: '' }))}`,
    result: `${left} = ${numberTex(step.value)}${unitTex(step.unit)}`,
  };
}
