'use server';
/** Connecting. */
import {
  CONNECT_CHECKS,
  connectJob,
  SECOND_INDICATIONS,
  WORK_PLACES,
  type NewConnection,
} from '@barys/store/jobs';
import type { SecondScale } from '@barys/store/runs';
import { parseTyped } from '@barys/core/text';
import { z } from 'zod';
import type { Answer } from '@/server/answer';
import { answersIn, note, onJob } from '@/places/jobs/onJob';

/** A typed number between two bounds, with a message that names the field. */
const typedBetween = (name: string, lowest: number, highest: number, unit: string) =>
  z.string().transform((text, context) => {
    const wrong = `${name}: type a number from ${lowest} to ${highest} ${unit}.`;
    try {
      const { value } = parseTyped(text);
      if (value >= lowest && value <= highest) return value;
    } catch {
      // Said below, in the same words as a number out of bounds.
    }
    context.addIssue({ code: 'custom', message: wrong });
    return z.NEVER;
  });

/** The same, where an empty field stands for a usual value. */
const typedOr = (name: string, usual: number, lowest: number, highest: number, unit: string) =>
  z
    .string()
    .default('')
    .transform((text) => (text.trim() === '' ? String(usual) : text))
    .pipe(typedBetween(name, lowest, highest, unit));

const connectionSchema = z.object({
  pressureReference: z.coerce.number().int().positive('Choose the pressure reference.'),
  secondReference: z.union([z.literal(''), z.coerce.number().int().positive()]).default(''),
  /** Not asked where the output is read by eye. */
  meter: z.coerce.number().int().positive('Choose the meter.').optional(),
  referenceReason: z.string().max(500),
  temperatureC: typedBetween('Ambient temperature', -60, 85, '°C'),
  humidityPercent: typedBetween('Humidity', 0, 100, '%'),
  barometerHpa: typedBetween('Barometer', 500, 1100, 'hPa'),
  checks: z.array(z.enum(CONNECT_CHECKS)),
  place: z.enum(WORK_PLACES, { error: 'Say where the readings are taken.' }),
  leakStart: z.string().max(40).default(''),
  leakEnd: z.string().max(40).default(''),
  leakMinutes: z.string().max(40).default(''),
  heightM: typedOr('Height difference', 0, -100, 100, 'm'),
  liquidDensityKgPerM3: typedOr('Liquid in the line', 0, 0, 20000, 'kg/m³'),
  secondIndication: z.union([z.literal(''), z.enum(SECOND_INDICATIONS)]).default(''),
  secondLow: z.string().max(40).default(''),
  secondHigh: z.string().max(40).default(''),
  secondUnit: z.string().max(20).default(''),
  secondTolerance: z.string().max(40).default(''),
  readsDigital: z.literal('yes').optional(),
  note,
});

/** A leak check is taken whole or not at all. */
function leakOf({
  leakStart,
  leakEnd,
  leakMinutes,
}: z.infer<typeof connectionSchema>): NewConnection['leak'] {
  if ([leakStart, leakEnd, leakMinutes].every((text) => text.trim() === '')) return null;
  return {
    startText: leakStart,
    endText: leakEnd,
    minutes: typedBetween('Leak check', 0.1, 1440, 'minutes').parse(leakMinutes),
  };
}

/** The scale of a second indication is taken whole or not at all. */
function secondScaleOf(entry: z.infer<typeof connectionSchema>): SecondScale | null {
  const { secondIndication, secondLow, secondHigh, secondUnit, secondTolerance } = entry;
  if (secondIndication === '' || secondTolerance.trim() === '') return null;
  const number = (name: string, text: string) => typedBetween(name, -1e9, 1e9, '').parse(text);
  return {
    unit: secondUnit.trim(),
    low: number('What it shows at 0 %', secondLow),
    high: number('What it shows at 100 %', secondHigh),
    percentOfSpan: typedBetween('Its tolerance', 0.001, 100, '%').parse(secondTolerance),
  };
}

export async function connectAction(form: FormData): Promise<Answer> {
  return onJob(form, (tx, actor, jobId, raw) => {
    const entry = connectionSchema.parse(raw);
    const { temperatureC, humidityPercent, barometerHpa } = entry;
    return connectJob(tx, actor, jobId, {
      pressureReference: entry.pressureReference,
      secondReference: entry.secondReference === '' ? null : entry.secondReference,
      meter: entry.meter ?? null,
      referenceReason: entry.referenceReason,
      checksDone: entry.checks,
      place: entry.place,
      ambient: { temperatureC, humidityPercent, barometerHpa },
      leak: leakOf(entry),
      heightM: entry.heightM,
      liquidDensityKgPerM3: entry.liquidDensityKgPerM3,
      secondIndication: entry.secondIndication,
      secondScale: secondScaleOf(entry),
      readsDigital: entry.readsDigital === 'yes',
      given: answersIn(raw),
      note: entry.note,
    });
  });
}
