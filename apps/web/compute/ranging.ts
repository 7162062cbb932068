import { judgeRange, leastSpanOfStamp, spanOverlap } from '@barys/core/ranging';
import { z } from 'zod';
import { calculation } from './calculation';
import { number } from './schemas';

const spans = z.strictObject({ leastSpan: number, greatestSpan: number });
const spanClass = z.strictObject({ name: z.string().max(80), leastSpan: number, greatestSpan: number });

const body = z
  .strictObject({
    lowerRangeLimit: number,
    upperRangeLimit: number,
    leastSpan: number,
    greatestSpan: number.nullable().default(null),
    greatestElevationPercent: number.nullable().default(null),
    greatestSuppressionPercent: number.nullable().default(null),
    spanClasses: z.array(spanClass).max(20).default([]),
  })
  .meta({ id: 'BodyReach', description: 'Limits of a body, in one unit with the range.' });

export const RANGING_CALCULATIONS = [
  calculation(
    'judge-range',
    'Whether a body can be set to a range, and by which limits not',
    z.strictObject({ body, lrv: number, urv: number }),
    z.object({
      breaches: z
        .array(
          z.object({
            limit: z.enum([
              'lower range limit',
              'upper range limit',
              'least span',
              'greatest span',
              'zero elevation',
              'zero suppression',
            ]),
            allowed: number,
            wanted: number,
          }),
        )
        .readonly(),
      span: number,
      turndown: number,
      zeroShiftOfSpan: number,
      classes: z.array(spanClass).readonly(),
    }),
    ({ body: reach, lrv, urv }) => judgeRange(reach, lrv, urv),
  ),
  calculation(
    'span-overlap',
    'Spans that two capsules, or two classes of a linkage, can both be set to; null where there are none',
    z.strictObject({ one: spans, other: spans }),
    z.object({ overlap: z.tuple([number, number]).readonly().nullable() }),
    ({ one, other }) => ({ overlap: spanOverlap(one, other) }),
  ),
  calculation(
    'least-span-of-stamp',
    'Least span of a body that is stamped with its largest span only',
    z.strictObject({ largestSpan: number, turndown: number }),
    z.object({ leastSpan: number }),
    ({ largestSpan, turndown }) => ({ leastSpan: leastSpanOfStamp(largestSpan, turndown) }),
  ),
];
