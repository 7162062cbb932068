import { SUSPICIONS, suspectWords, weigh, workWeighing } from '@barys/core/suspects';
import { PRESSURE_KINDS, PRESSURE_UNITS } from '@barys/core/units';
import { z } from 'zod';
import { calculation } from './calculation';
import { number, pressureUnit, range, working } from './schemas';

const share = z.strictObject({ low: number, high: number });
const suspicion = z.enum(SUSPICIONS);

const request = z.strictObject({
  range,
  readings: z
    .array(
      z.strictObject({
        applied: number,
        output: number,
        direction: z.enum(['up', 'down']),
        at: number.optional().meta({ description: 'When it was read, s from any start.' }),
        digital: number.optional().meta({ description: 'Digital value of the sensor, in the input unit.' }),
        shown: number.optional().meta({ description: 'What the display showed; needs `display`.' }),
        untapped: number.optional().meta({ description: 'Output before it was tapped.' }),
      }),
    )
    .min(1)
    .max(60)
    .meta({ description: 'In the order in which they were taken.' }),
  limitPercent: number.meta({ description: 'Limit at the span, per cent of it.' }),
  stepPercent: number.optional(),
  inputUnit: pressureUnit.nullable().default(null),
  pressureKind: z.enum(PRESSURE_KINDS).nullable().default(null),
  barometer: number.optional().meta({ description: 'Absolute, in the input unit.' }),
  saturation: z
    .tuple([number, number])
    .readonly()
    .nullable()
    .default(null)
    .meta({ description: 'Least and greatest output of a sound instrument.' }),
  resistorOhm: number.optional(),
  neighbours: z
    .array(z.strictObject({ name: z.string().max(80), range }))
    .max(20)
    .optional(),
  display: share.optional(),
  vented: number.optional().meta({ description: 'Output with both sides drained and open to the air.' }),
  drifts: z
    .array(z.strictObject({ zeroPercent: number, gainPercent: number }))
    .max(50)
    .optional(),
  others: z
    .array(z.strictObject({ name: z.string().max(80), gainPercent: number, usualPercent: number.positive() }))
    .max(20)
    .optional()
    .meta({ description: 'How others were found with the same reference.' }),
  outputUnit: z.string().max(20).default('').meta({ description: 'For the words only.' }),
});

export const SUSPECT_CALCULATIONS = [
  calculation(
    'suspects',
    'What can be behind the readings of a run: which suspicion explains them, how surely, and the test that decides',
    request,
    z.object({
      told: suspicion.nullable(),
      likely: z.array(suspicion).readonly(),
      suspects: z.array(
        z.object({
          suspicion,
          title: z.string(),
          figure: z.string(),
          test: z.string(),
          probability: number,
          residualPercent: number,
          scatterPercent: number,
          errorsPercentSpan: z.array(number).readonly(),
        }),
      ),
      working,
    }),
    ({ outputUnit, ...suspected }) => {
      const weighed = weigh(suspected);
      const units = {
        input: suspected.inputUnit === null ? '' : PRESSURE_UNITS[suspected.inputUnit].label,
        output: outputUnit,
      };
      return {
        told: weighed.told,
        likely: weighed.likely,
        suspects: weighed.suspects.map((suspect) => ({
          suspicion: suspect.suspicion,
          ...suspectWords(suspect, suspected, units),
          probability: suspect.probability,
          residualPercent: suspect.residualPercent,
          scatterPercent: suspect.scatterPercent,
          errorsPercentSpan: suspect.errorsPercentSpan,
        })),
        working: workWeighing(weighed),
      };
    },
  ),
];
