/** What a cell says. A cell that can be read in two ways is never guessed at: the file's reader is asked. */
import { CoreError } from '@barys/core/errors';
import { parseTyped } from '@barys/core/text';
import { parseUnit, quantityOf, type Unit } from '@barys/core/units';

export type DateOrder = 'day first' | 'month first';

/** What the person who imports answered about the whole file. */
export interface Answers {
  readonly dateOrder: DateOrder | null;
  /** Units that say no reference, as the file writes them, with the one that is meant. */
  readonly units: Readonly<Record<string, string>>;
}

/** What a cell is wrong about, in words; `asks` names a question about the whole file that would settle it. */
export class CellProblem extends Error {
  constructor(
    message: string,
    readonly asks?: 'dateOrder' | { readonly unit: string; readonly choices: readonly string[] },
  ) {
    super(message);
  }
}

export function numberCell(cell: string, name: string): number | null {
  if (cell === '') return null;
  try {
    return parseTyped(cell.replace(/\s|\u00A0/g, '').replace(/%$/, '')).value;
  } catch (error) {
    if (error instanceof CoreError) throw new CellProblem(`${name}: ${error.message}`);
    throw error;
  }
}

const ISO = /^(\d{4})-(\d{1,2})-(\d{1,2})(?:[T ].*)?$/;
const DOTTED = /^(\d{1,2})\.(\d{1,2})\.(\d{4})$/;
const EITHER = /^(\d{1,2})[/-](\d{1,2})[/-](\d{4})$/;

function iso(year: number, month: number, day: number): string | null {
  const date = new Date(Date.UTC(year, month - 1, day));
  const isReal =
    date.getUTCMonth() === month - 1 && date.getUTCDate() === day && year >= 1900 && year <= 2200;
  const two = (part: number) => String(part).padStart(2, '0');
  return isReal ? `${year}-${two(month)}-${two(day)}` : null;
}

/** An ISO date; with dots the day is first (common practice), with slashes either may be. */
export function dateCell(cell: string, name: string, order: DateOrder | null): string | null {
  if (cell === '') return null;
  const parts = (match: RegExpExecArray | null) =>
    match?.slice(1, 4).map(Number) as [number, number, number] | undefined;
  // Made where it is thrown: an error takes longer than all else that a cell costs.
  const refuse = () => raise(new CellProblem(`${name}: "${cell}" is not a date, such as 2026-03-31.`));
  const whole = parts(ISO.exec(cell));
  if (whole) return iso(...whole) ?? refuse();
  const dotted = parts(DOTTED.exec(cell));
  if (dotted) return iso(dotted[2], dotted[1], dotted[0]) ?? refuse();
  const either = parts(EITHER.exec(cell));
  if (!either) return refuse();
  const [first, second, year] = either;
  if (order === 'day first') return iso(year, second, first) ?? refuse();
  if (order === 'month first') return iso(year, first, second) ?? refuse();
  if (first === second) return iso(year, first, second) ?? refuse();
  const dayFirst = iso(year, second, first);
  const monthFirst = iso(year, first, second);
  if (dayFirst !== null && monthFirst !== null)
    throw new CellProblem(
      `${name}: "${cell}" can be ${dayFirst} or ${monthFirst}; say which order the file has.`,
      'dateOrder',
    );
  return dayFirst ?? monthFirst ?? refuse();
}

function raise(problem: CellProblem): never {
  throw problem;
}

/** Units of the answers to a file by how it writes them: a file says the same few over and over. */
const unitsOf = new WeakMap<Answers, Map<string, Unit>>();

/** A unit; one without its reference is taken as it was answered for the file, else asked. */
export function unitCell(cell: string, name: string, answers: Answers): Unit | null {
  if (cell === '') return null;
  const known = unitsOf.get(answers) ?? new Map<string, Unit>();
  unitsOf.set(answers, known);
  const before = known.get(cell);
  if (before !== undefined) return before;
  try {
    const { unit } = parseUnit(answers.units[cell] ?? cell);
    known.set(cell, unit);
    return unit;
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    const { problem } = error;
    if (problem.code === 'ambiguous-unit')
      throw new CellProblem(`${name}: "${cell}" does not say its reference.`, {
        unit: cell,
        choices: problem.choices,
      });
    throw new CellProblem(`${name}: ${error.message}`);
  }
}

export function pressureUnitCell(cell: string, name: string, answers: Answers): string | null {
  const unit = unitCell(cell, name, answers);
  if (unit !== null && quantityOf(unit) !== 'pressure')
    throw new CellProblem(`${name}: "${cell}" is not a unit of pressure.`);
  return unit;
}

const plain = (text: string): string => text.toLowerCase().replace(/[^a-z0-9]/g, '');

/** Lists of choices by how their words are spelled without blanks and signs; of two alike the first counts. */
const spellings = new WeakMap<object, ReadonlyMap<string, string>>();

function spellingsOf(choices: Readonly<Record<string, string>>): ReadonlyMap<string, string> {
  const known = spellings.get(choices);
  if (known !== undefined) return known;
  const made = new Map(
    Object.entries(choices)
      .reverse()
      .map(([words, value]) => [plain(words), value]),
  );
  spellings.set(choices, made);
  return made;
}

/** One of a list, however it is spelled; the words stand for it too. */
export function choiceCell<T extends string>(
  cell: string,
  name: string,
  choices: Readonly<Record<string, T>>,
): T | null {
  if (cell === '') return null;
  const found = spellingsOf(choices).get(plain(cell));
  if (found === undefined)
    throw new CellProblem(
      `${name}: "${cell}" is none of ${[...new Set(Object.values(choices))].join(', ')}.`,
    );
  return found as T;
}

/** Each value stands for itself. */
export const same = <T extends string>(values: readonly T[]): Record<string, T> =>
  Object.fromEntries(values.map((value) => [value, value]));
