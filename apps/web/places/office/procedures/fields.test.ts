import { procedureContentSchema } from '@barys/store/shapes';
import { describe, expect, it } from 'vitest';
import { contentOfFields, fieldsOfProcedure, PROCEDURE_FIELDS } from './fields';
import { pointsInWords, ruleInWords } from './words';

const read = (typed: Partial<typeof PROCEDURE_FIELDS> = {}) =>
  procedureContentSchema.safeParse(contentOfFields({ ...PROCEDURE_FIELDS, ...typed }));

describe('a procedure', () => {
  it('is read from its fields, questions by their stage', () => {
    const content = read({
      points: '0 50;100',
      tolerancePercentOfSpan: '0,1',
      school: 'always to the nearest',
      rule: 'guard-band',
      r: '0.8',
      questions: 'connect: Is the supply clean: and dry?\n\nas-found: Tap the glass.',
      cautions: 'Stand aside.',
    }).data;
    expect(content).toMatchObject({
      points: { in: 'percent-of-input', values: [0, 50, 100] },
      tolerancePercentOfSpan: 0.1,
      adjustAbovePercentOfLimit: null,
      school: 'always to the nearest',
      decisionRule: { kind: 'guard-band', r: 0.8, isUndecidedAllowed: true },
      questions: [
        { stage: 'connect', text: 'Is the supply clean: and dry?' },
        { stage: 'as-found', text: 'Tap the glass.' },
      ],
      cautions: ['Stand aside.'],
    });
  });

  it.each([
    {},
    { rule: 'guard-band', r: '0.5', isUndecidedAllowed: 'no' },
    { rule: 'method-6', cycles: '3' },
    { ratePercentPerS: '2', onLoss: 'vent' },
  ])('with %o comes back from its fields as it was', (typed) => {
    const content = procedureContentSchema.parse(contentOfFields({ ...PROCEDURE_FIELDS, ...typed }));
    const fields = fieldsOfProcedure('Shop', content);
    expect(procedureContentSchema.parse(contentOfFields(fields))).toEqual(content);
  });

  it('is said in words', () => {
    const content = procedureContentSchema.parse(
      contentOfFields({ ...PROCEDURE_FIELDS, cycles: '2', offStopsPercent: '5', direction: 'up' }),
    );
    expect(pointsInWords(content)).toBe('0, 25, 50, 75, 100 % of input, up, 2 cycles, 5 % off the stops');
    expect(ruleInWords({ kind: 'guard-band', r: 1, isUndecidedAllowed: true })).toBe(
      'guard band of 1 U, undecided inside it',
    );
    expect(ruleInWords({ kind: 'simple' })).toBe('simple acceptance');
  });

  it.each([
    [{ questions: 'nowhere: what?' }, 'stage'],
    [{ questions: 'connect:' }, 'text'],
    [{ points: '' }, 'points'],
    [{ cycles: 'twice' }, 'cycles'],
    [{ holdS: '' }, 'holdS'],
    [{ ratePercentPerS: '60' }, 'approach.ratePercentPerS'],
    [{ ratePercentPerS: '0' }, 'approach.ratePercentPerS'],
  ])('with %o is refused at its field', (typed, field) => {
    expect(read(typed).error?.issues[0]?.path.join('.')).toContain(field);
  });
});
