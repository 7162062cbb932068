/** A budget as it is typed: texts in fields, and the model that they describe. */
import { CoreError } from '@barys/core/errors';
import { parseTyped } from '@barys/core/text';
import type { BudgetModel, Distribution } from '@barys/core/uncertainty';

export type DistributionKind = Exclude<Distribution['kind'], 'specification'> | 'specification';

export interface InputFields {
  readonly name: string;
  readonly estimate: string;
  readonly unit: string;
  readonly kind: DistributionKind;
  /** The figures of the distribution, in the order of its labels. */
  readonly figures: readonly string[];
  /** Degrees of freedom where they are stated; empty for those of the distribution. */
  readonly degreesOfFreedom: string;
}

export interface BudgetFields {
  readonly title: string;
  readonly model: string;
  readonly unit: string;
  readonly inputs: readonly InputFields[];
  readonly correlations: readonly { readonly a: string; readonly b: string; readonly r: string }[];
  readonly probability: string;
  readonly lower: string;
  readonly upper: string;
}

interface DistributionForm {
  readonly word: string;
  /** What its figures are called. */
  readonly labels: readonly string[];
}

export const DISTRIBUTIONS: Readonly<Record<DistributionKind, DistributionForm>> = {
  'type-a': { word: 'readings', labels: ['Readings'] },
  pooled: { word: 'pooled s', labels: ['s', 'Readings now', 'Degrees of freedom'] },
  rectangular: { word: 'rectangular', labels: ['Half width'] },
  triangular: { word: 'triangular', labels: ['Half width'] },
  'u-shaped': { word: 'U-shaped', labels: ['Half width'] },
  resolution: { word: 'resolution', labels: ['Last digit'] },
  normal: { word: 'certificate U, k', labels: ['U', 'k'] },
  'normal-95': { word: 'certificate 95 %', labels: ['U'] },
  standard: { word: 'standard u', labels: ['u'] },
  specification: { word: 'specification', labels: ['% of reading', '% of range', 'Range', 'Floor'] },
};

/**
 * A field's number, or undefined of an empty field.
 * @throws CoreError that names the field
 */
function optional(text: string | undefined, field: string): number | undefined {
  if (text === undefined || text.trim() === '') return undefined;
  try {
    return parseTyped(text).value;
  } catch (error) {
    if (error instanceof CoreError) throw new CoreError(error.problem, field);
    throw error;
  }
}

function needed(text: string | undefined, name: string, field: string): number {
  const value = optional(text, field);
  if (value === undefined)
    throw new CoreError({ code: 'missing', name, why: 'the budget is computed with it' }, field);
  return value;
}

function distributionOf(input: InputFields, estimate: number | undefined, field: string): Distribution {
  const { labels } = DISTRIBUTIONS[input.kind];
  const figure = (place: number) =>
    needed(input.figures[place], `${labels[place] ?? 'A figure'} of ${input.name}`, field);
  switch (input.kind) {
    case 'type-a':
      return {
        kind: 'type-a',
        readings: (input.figures[0] ?? '')
          .split(/[\s;]+/)
          .filter((text) => text !== '')
          .map((text) => needed(text, 'A reading', field)),
      };
    case 'pooled':
      return { kind: 'pooled', sd: figure(0), count: figure(1), degreesOfFreedom: figure(2) };
    case 'rectangular':
    case 'triangular':
    case 'u-shaped':
      return { kind: input.kind, halfWidth: figure(0) };
    case 'resolution':
      return { kind: 'resolution', step: figure(0) };
    case 'normal':
      return { kind: 'normal', expanded: figure(0), k: figure(1) };
    case 'normal-95':
      return { kind: 'normal-95', expanded: figure(0) };
    case 'standard':
      return { kind: 'standard', uncertainty: figure(0) };
    case 'specification':
      return {
        kind: 'specification',
        specification: {
          reading: estimate ?? 0,
          percentOfReading: optional(input.figures[0], field),
          percentOfRange: optional(input.figures[1], field),
          range: optional(input.figures[2], field),
          floor: optional(input.figures[3], field),
        },
      };
  }
}

/**
 * The model that the fields describe.
 * @throws CoreError whose field is `inputs.<place>`, `correlations`, `probability`, `lower` or `upper`
 */
export function modelOf(fields: BudgetFields): BudgetModel {
  return {
    model: fields.model,
    unit: fields.unit,
    inputs: fields.inputs.map((input, place) => {
      const field = `inputs.${place}`;
      const estimate = optional(input.estimate, field);
      return {
        name: input.name.trim(),
        unit: input.unit,
        estimate,
        distribution: distributionOf(input, estimate, field),
        degreesOfFreedom: optional(input.degreesOfFreedom, field),
      };
    }),
    correlations: fields.correlations
      // A line that was opened and left empty says nothing.
      .filter(({ a, b, r }) => `${a}${b}${r}`.trim() !== '')
      .map(({ a, b, r }) => {
        if (a === '' || b === '')
          throw new CoreError(
            { code: 'missing', name: 'Which two inputs', why: 'a correlation is between two of them' },
            'correlations',
          );
        return { a, b, r: needed(r, `The correlation of ${a} and ${b}`, 'correlations') };
      }),
  };
}

/** The coverage probability, from per cent. */
export const probabilityOf = (fields: BudgetFields): number =>
  needed(fields.probability, 'The coverage probability', 'probability') / 100;

/** The tolerance to be judged by; null on the side that has none. */
export const limitsOf = (fields: BudgetFields): { lower: number | null; upper: number | null } => ({
  lower: optional(fields.lower, 'lower') ?? null,
  upper: optional(fields.upper, 'upper') ?? null,
});
