import { configurationSchema, instrumentSchema } from '@barys/store/shapes';
import { describe, expect, it } from 'vitest';
import { TEST_CONFIGURATION } from '@/test/configuration';
import {
  CONFIGURATION_FIELDS,
  configurationOfFields,
  entryOfFields,
  fieldsOfConfiguration,
  NEW_INSTRUMENT,
} from './fields';

const TYPED = {
  ...NEW_INSTRUMENT,
  tag: ' pt-101 ',
  service: 'Feed pump',
  area: 'North',
  bodyId: '3',
  dueOn: '2027-03-31',
};

const messages = (typed: Partial<typeof NEW_INSTRUMENT>): string[] =>
  instrumentSchema
    .safeParse(entryOfFields({ ...TYPED, ...typed }))
    .error?.issues.map(({ message }) => message) ?? [];

describe('a register entry', () => {
  it('is read from its fields: decimal commas, hazards parted by semicolons, an empty walk as none', () => {
    const entry = instrumentSchema.parse(
      entryOfFields({ ...TYPED, percentOfSpan: '0,25', hazards: 'hot; toxic ;', walk: '' }),
    );
    expect(entry).toMatchObject({
      tag: 'PT-101',
      tolerance: {
        percentOfSpan: 0.25,
        middlePercentOfSpan: null,
        percentOfReading: 0,
        adjustAbovePercentOfLimit: 70,
      },
      hookUp: 'block-and-bleed',
      hazards: ['hot', 'toxic'],
      walk: null,
      bodyId: 3,
    });
  });

  it.each([
    [{ tag: 'a b' }, 'A tag is 2 to 32 letters, digits and hyphens, and begins with no hyphen.'],
    [{ service: ' ' }, 'Say what the instrument serves.'],
    [{ bodyId: '' }, 'Choose a body from the list.'],
    [{ percentOfSpan: 'x' }, 'The tolerance is a number.'],
    [{ percentOfSpan: '' }, 'The tolerance is a number.'],
    [{ adjustAbovePercentOfLimit: '120' }, 'The adjust limit is at most 100 % of the tolerance.'],
    [{ intervalMonths: '1.5' }, 'The interval is a whole number of months.'],
    [{ dueOn: '31.3.2027' }, 'The due date is a date, such as 2026-03-31.'],
    [{ walk: '0' }, 'The place in the walk counts from 1.'],
  ])('with %o is refused in words', (typed, message) => {
    expect(messages(typed)).toEqual([message]);
  });
});

describe('a configuration', () => {
  const read = (fields: Partial<typeof CONFIGURATION_FIELDS>) =>
    configurationSchema.safeParse(
      configurationOfFields({ ...CONFIGURATION_FIELDS, reason: 'first entry', ...fields }),
    );

  it.each([
    ['linear', TEST_CONFIGURATION.transferFunction],
    ['with a cut-off', { kind: 'square-root-cut-off', cutOffPercentOfFlow: 12 } as const],
    ['with a linear start', { kind: 'square-root-linear-start', linearToPercentOfFlow: 8 } as const],
    [
      'with a table',
      {
        kind: 'table',
        points: [
          { inputPercent: 0, outputPercent: 0 },
          { inputPercent: 40, outputPercent: 55.5 },
          { inputPercent: 100, outputPercent: 100 },
        ],
      } as const,
    ],
  ])('%s comes back from its fields as it was', (_name, transferFunction) => {
    const configuration = { ...TEST_CONFIGURATION, lrv: -50.25, transferFunction };
    const fields = { ...fieldsOfConfiguration(configuration as typeof TEST_CONFIGURATION), reason: 'again' };
    const { version: _version, ...range } = configuration;
    expect(configurationSchema.parse(configurationOfFields(fields))).toEqual({ ...range, reason: 'again' });
  });

  it('needs a reason, a span and a damping that is not negative', () => {
    expect(read({ reason: ' ' }).error?.issues[0]?.message).toContain('Say why');
    expect(read({ urv: '0' }).error?.issues[0]?.message).toContain('has no span');
    expect(read({ dampingS: '-1' }).error?.issues[0]?.message).toContain('must not be negative');
    expect(() => read({ lrv: 'zero' })).toThrow('"zero" is not a number');
    expect(() => read({ dampingS: '' })).toThrow('The damping is needed');
  });
});
