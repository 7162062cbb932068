import { bodySchema } from '@barys/store/registers';
import { describe, expect, it } from 'vitest';
import { BODY_FIELDS, bodyOfFields, fieldsOfBody } from './fields';

const TYPED = {
  ...BODY_FIELDS,
  model: 'Force balance, differential',
  kind: 'differential',
  technology: 'pneumatic',
  unit: 'inH2OAt68F',
  lowerRangeLimit: '-200',
  upperRangeLimit: '200',
  leastSpan: '20',
  greatestSpan: '',
  accuracy: '0.05 + 0.005 * URL / span',
  spanClasses: 'low; 20; 60\nmedium; 50; 125\n',
  swapChecklist: 'Close the manifold; then vent\nBolts of the flanges; 34,5\n\n',
};

const read = (typed: Partial<typeof BODY_FIELDS> = {}) =>
  bodySchema.safeParse(bodyOfFields({ ...TYPED, ...typed }, ['psi-3-15'], ['range wheel']));

describe('a body', () => {
  it('is read with its span classes and its checklist, a torque only where the last part is a number', () => {
    expect(read().data).toMatchObject({
      greatestSpan: null,
      spanClasses: [
        { name: 'low', leastSpan: 20, greatestSpan: 60 },
        { name: 'medium', leastSpan: 50, greatestSpan: 125 },
      ],
      swapChecklist: [
        { step: 'Close the manifold; then vent', torqueNm: null },
        { step: 'Bolts of the flanges', torqueNm: 34.5 },
      ],
    });
  });

  it('comes back from its fields as it was', () => {
    const body = bodySchema.parse(bodyOfFields(TYPED, ['psi-3-15'], ['range wheel']));
    const fields = fieldsOfBody({ ...body, id: 1, revision: 1 });
    expect(bodySchema.parse(bodyOfFields(fields, body.outputs, body.trims))).toEqual(body);
  });

  it.each([
    [{ upperRangeLimit: '-300' }, 'The upper range limit must be above the lower one.'],
    [{ leastSpan: '900' }, 'The least span is wider than the limits.'],
    [{ leastSpan: '0' }, 'The least span must be greater than zero.'],
    [{ greatestSpan: '10' }, 'The greatest span lies between the least span and the width of the limits.'],
    [{ accuracy: '0.05 + ' }, 'The accuracy is a formula in span and URL'],
    [{ accuracy: '0.05 * turndown' }, 'The accuracy is a formula in span and URL'],
    [{ spanClasses: 'low; 60; 20' }, 'A span class runs from its least span up to its greatest.'],
    [{ lowerRangeLimit: 'low' }, 'The lower range limit is a number.'],
  ])('with %o is refused in words', (typed, words) => {
    expect(read(typed).error?.issues[0]?.message).toContain(words);
  });
});
