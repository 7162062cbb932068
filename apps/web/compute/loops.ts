import {
  areaOfGauge,
  badConnectionOhm,
  diagnose,
  FAILURE_MILLIAMP,
  ITEM_KINDS,
  judgeTap,
  rangeOfTap,
  receiverVoltage,
  rootsTo,
  supplyBudget,
  tapsOf,
  toleranceAt,
  TOLERANCE_SUMS,
  workSupply,
} from '@barys/core/loop';
import { z } from 'zod';
import { calculation } from './calculation';
import { maybe, number, transfer, verdict, working } from './schemas';

const supply = z
  .strictObject({
    supplyV: number,
    liftOffV: number,
    wire: z.strictObject({ lengthM: number, areaMm2: number, temperatureC: number.default(20) }),
    senseOhm: number.default(0),
    barrierOhm: number.default(0),
    barrierDropV: number.default(0),
    otherOhm: number.default(0),
  })
  .meta({
    id: 'LoopSupply',
    description: 'The length of the cable is one way; its resistance counts both conductors.',
  });
const at = { at4: number, at20: number, atFailure: number };

const scale = z.strictObject({ low: number, high: number });
const items = z
  .array(
    z.strictObject({
      name: z.string().max(60),
      kind: z.enum(ITEM_KINDS).default('transmitter'),
      from: z.number().int().min(0).nullable(),
      input: scale,
      output: scale,
      transfer: transfer.default({ kind: 'linear' }),
      tolerancePercent: number.default(0),
    }),
  )
  .min(1)
  .max(50)
  .meta({
    id: 'LoopItems',
    description: 'Each reads the output of one before it, or what is applied where from is null.',
  });

export const LOOP_CALCULATIONS = [
  calculation(
    'loop-supply',
    'What the supply of a two-wire loop leaves its transmitter, and how far it reaches',
    z.strictObject({ supply, failureMilliamp: number.default(FAILURE_MILLIAMP) }),
    z.object({
      wireOhm: number,
      totalOhm: number,
      terminalV: z.object(at),
      mostOhm: z.object({ at20: number, atFailure: number }),
      marginOhm: number,
      marginV: number,
      isEnough: z.boolean(),
      mostMilliamp: maybe,
      longestM: number,
      leastSupplyV: number,
      canCommunicate: z.boolean(),
      working,
    }),
    ({ supply: given, failureMilliamp }) => ({
      ...supplyBudget(given, failureMilliamp),
      working: workSupply(given, failureMilliamp).working,
    }),
  ),
  calculation(
    'wire-area',
    'Area of an American wire gauge',
    z.strictObject({ gauge: number }),
    z.object({ areaMm2: number }),
    ({ gauge }) => ({ areaMm2: areaOfGauge(gauge) }),
  ),
  calculation(
    'bad-connection',
    'What a terminal voltage that was measured says of the resistance of the loop',
    z.strictObject({ supply, measuredV: number, atMilliamp: number }),
    z.object({ ohm: number }),
    ({ supply: given, measuredV, atMilliamp }) => ({ ohm: badConnectionOhm(given, measuredV, atMilliamp) }),
  ),
  calculation(
    'receiver-voltage',
    'What a receiver gets across its resistor, and between which limits',
    z.strictObject({
      milliamp: number,
      resistorOhm: number,
      tolerancePercent: number.default(0),
      inputOhm: maybe.default(null),
    }),
    z.object({ nominalV: number, leastV: number, mostV: number }),
    ({ milliamp, resistorOhm, tolerancePercent, inputOhm }) =>
      receiverVoltage(milliamp, resistorOhm, tolerancePercent, inputOhm),
  ),
  calculation(
    'loop-taps',
    'What stands at every tap of a loop, and how often the root is taken on the way there',
    z.strictObject({ items, applied: number }),
    z.object({ taps: z.array(number).readonly(), roots: z.array(z.number().int()) }),
    ({ items: given, applied }) => ({
      taps: tapsOf(given, applied),
      roots: given.map((_item, place) => rootsTo(given, place)),
    }),
  ),
  calculation(
    'loop-tap',
    'The range to a tap of a loop, and the verdict on what was read there, exact on the limit',
    z.strictObject({
      items,
      at: z.number().int().min(0),
      applied: number,
      read: number,
      judgedBy: z.enum(TOLERANCE_SUMS).default('sum'),
    }),
    z.object({
      range: z.object({
        lrv: number,
        urv: number,
        outputLow: number,
        outputHigh: number,
        transfer: z.string(),
      }),
      verdict: verdict.nullable().meta({ description: 'Null where a root at no flow has no limit.' }),
      error: maybe,
      limit: maybe,
    }),
    ({ items: given, at: tap, applied, read, judgedBy }) => {
      const reading = { cycle: 1, direction: 'up', nominalPercent: 0, applied, output: read } as const;
      const { transferFunction, ...range } = rangeOfTap(given, tap);
      const judged = judgeTap(given, tap, reading, judgedBy);
      return {
        range: { ...range, transfer: transferFunction?.kind ?? 'linear' },
        verdict: judged?.verdict ?? null,
        error: judged?.errorOutput ?? null,
        limit: judged?.limit ?? null,
      };
    },
  ),
  calculation(
    'loop-tolerance',
    'What the items of a loop may put a tap off by, as a sum and as the root of the sum of squares',
    z.strictObject({ items, at: z.number().int().min(0), applied: number }),
    z.object({
      contributions: z
        .array(z.object({ item: z.number().int(), sensitivity: number, percent: number }))
        .readonly(),
      sum: number,
      rootSumSquare: number,
    }),
    ({ items: given, at: tap, applied }) => toleranceAt(given, tap, applied),
  ),
  calculation(
    'loop-diagnosis',
    'Which item of a loop is wrong from readings at its taps, how sure that is, and which tap decides most',
    z.strictObject({
      items,
      readings: z
        .array(
          z.strictObject({
            item: z.number().int().min(0),
            applied: number,
            value: number,
            uncertainty: number,
          }),
        )
        .max(100),
      nextAt: maybe.default(null),
      nextUncertaintyPercent: number.default(0.05),
    }),
    z.object({
      suspicions: z
        .array(
          z.object({
            item: z.number().int().nullable(),
            probability: number,
            offPercent: maybe,
            uncertaintyPercent: maybe,
          }),
        )
        .readonly(),
      doubt: number,
      next: z.array(z.object({ item: z.number().int(), bits: number })).readonly(),
      deviations: z.array(number).readonly(),
    }),
    ({ items: given, readings, nextAt, nextUncertaintyPercent }) => {
      const { errors, ...found } = diagnose(
        given,
        readings,
        nextAt ?? readings.at(-1)?.applied ?? null,
        nextUncertaintyPercent,
      );
      // Per cent of the span at each tap; "errors" is what a problem answers with.
      return { ...found, deviations: errors };
    },
  ),
];
