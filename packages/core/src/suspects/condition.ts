/**
 * What an instrument, its reference and its surroundings would read like in a stated condition: one forward model, of which each
 * suspicion sets a part. In order: the reference, a leak, what stands before the sensor, friction, the sensor, the range and the
 * transfer function that are set, damping, the limits of the output, the output stage, the resistor that makes volts of it.
 */
import { toNumber } from '../exact';
import type { Direction } from '../procedure';
import { outputSpan, share, transferOf, type DisplayScale, type SignalRange, type Transfer } from '../signal';
import { PRESSURE_UNITS, type PressureKind, type PressureUnit } from '../units';

export interface SuspectReading {
  /** Input as the reference read it, in the input unit. */
  readonly applied: number;
  /** In the output unit. */
  readonly output: number;
  readonly direction: Direction;
  /** When it was read, s from any start. */
  readonly at?: number;
  /** Digital value of the sensor, in the input unit. */
  readonly digital?: number;
  /** What the display showed, in its unit. */
  readonly shown?: number;
  /** Output before it was tapped, in the output unit; `output` is then what it read after. */
  readonly untapped?: number;
}

/** How another instrument was found with the same reference. */
export interface MeasuredWithIt {
  readonly name: string;
  /** Its gain error, per cent, and how large one is usual for it: a standard deviation. */
  readonly gainPercent: number;
  readonly usualPercent: number;
}

export interface Suspected {
  readonly range: SignalRange;
  /** In the order in which they were taken. */
  readonly readings: readonly SuspectReading[];
  /** Limit at the span, per cent of it. */
  readonly limitPercent: number;
  /** Smallest step of the reading, per cent of span. */
  readonly stepPercent?: number;
  /** Null where the input is no pressure. */
  readonly inputUnit: PressureUnit | null;
  readonly pressureKind: PressureKind | null;
  /** In the input unit, absolute; a usual one where it is not known. */
  readonly barometer?: number;
  /** Least and greatest output of a sound instrument, in the output unit; null where it has none. */
  readonly saturation?: readonly [low: number, high: number] | null;
  /** Across which the output is read as a voltage, ohm. */
  readonly resistorOhm?: number;
  /** Other ranges that are known: of earlier configurations, of the instrument beside it. */
  readonly neighbours?: readonly { readonly name: string; readonly range: SignalRange }[];
  /** Scale that the display should have. */
  readonly display?: DisplayScale;
  /** Output with both sides drained and open to the air, in the output unit. */
  readonly vented?: number;
  /** Drift from calibration to calibration, per cent of span. */
  readonly drifts?: readonly { readonly zeroPercent: number; readonly gainPercent: number }[];
  readonly others?: readonly MeasuredWithIt[];
}

/** What is so; all of it sound in `SOUND`. */
export interface Condition {
  /** Of the reference: gain less one, and offset in the input unit. */
  referenceGain: number;
  referenceOffset: number;
  /** Share of the pressure that is lost from one reading to the next. */
  leak: number;
  /** Share of the pressure that flows away past a restriction, always. */
  passed: number;
  /** What stands before the sensor: -1 where the sides are exchanged, and a head in the input unit. */
  inputGain: number;
  inputOffset: number;
  /** What is read with it even when both sides are open, in the input unit. */
  sensorZero: number;
  sensorGain: number;
  /** Half the width of a play between the input and what follows it, in the input unit. */
  friction: number;
  /** Whether the first reading stands free in that play; else it was come to in its own direction. */
  isFreeAtFirst: boolean;
  lrv: number;
  urv: number;
  /** Applied one after the other. */
  transfers: readonly Transfer[];
  /** Where the display takes others than the output; null where it does not. */
  displayTransfers: readonly Transfer[] | null;
  isReversed: boolean;
  /** Time constants with which output and line follow, s; readings without times are taken to be a minute apart. */
  lagS: number;
  lineS: number;
  /** What went by before the pressure stood, as a factor on what is still missing then. */
  late: number;
  /** How vague an effect of time is, as a part of it: more where nobody wrote down the times. */
  vague: number;
  least: number;
  most: number;
  /** Share of span, and gain less one. */
  outputZero: number;
  outputGain: number;
  /** A middle that stands above the ends, and a curve that bends both ways; share of span. */
  bow: number;
  wave: number;
  scale: number;
  /** In the output unit; NaN where it is not stuck. */
  stuck: number;
  displayLow: number;
  displayHigh: number;
  /** Standard deviation of a reading beyond the usual, per cent of span. */
  scatter: number;
}

export const soundCondition = ({ range, saturation, display }: Suspected): Condition => ({
  referenceGain: 0,
  referenceOffset: 0,
  leak: 0,
  passed: 0,
  inputGain: 1,
  inputOffset: 0,
  sensorZero: 0,
  sensorGain: 0,
  friction: 0,
  isFreeAtFirst: false,
  lrv: range.lrv,
  urv: range.urv,
  transfers: [transferOf(range)],
  displayTransfers: null,
  isReversed: false,
  lagS: 0,
  lineS: 0,
  late: 1,
  vague: 0,
  // What has no limits that are known stops somewhere all the same.
  least: saturation?.[0] ?? Math.min(range.outputLow, range.outputHigh) - outputSpan(range),
  most: saturation?.[1] ?? Math.max(range.outputLow, range.outputHigh) + outputSpan(range),
  outputZero: 0,
  outputGain: 0,
  bow: 0,
  wave: 0,
  scale: 1,
  stuck: NaN,
  displayLow: display?.low ?? 0,
  displayHigh: display?.high ?? 1,
  scatter: 0,
});

type Channel = 'output' | 'digital' | 'shown' | 'untapped' | 'vented' | 'other';

/** One thing that was seen, in per cent of the span of its scale. */
export interface Seen {
  readonly channel: Channel;
  /** Place of the reading, or of the other instrument. */
  readonly place: number;
  readonly value: number;
  /** Standard deviation that it has by itself, per cent of span; that of a reading where nothing is said. */
  readonly own: number | null;
}

/** A scale is told by a few readings of it; more only take their time. */
const ENOUGH_SHOWN = 5;

/** Everything that was seen, in one column. */
export function seenOf(suspected: Suspected): Seen[] {
  const { range, readings, display, others = [] } = suspected;
  // In the open air an absolute instrument reads the barometer: it says nothing where that was not read.
  const isAirKnown = suspected.pressureKind !== 'absolute' || suspected.barometer !== undefined;
  const vented = isAirKnown ? suspected.vented : undefined;
  const span = Math.abs(range.outputHigh - range.outputLow);
  const output = (value: number): number => ((value - range.outputLow) / span) * 100;
  const seen = (channel: Channel, place: number, value: number, own: number | null = null): Seen => ({
    channel,
    place,
    value,
    own,
  });
  const displaySpan = display === undefined ? 1 : Math.abs(display.high - display.low);
  return [
    ...readings.map((reading, i) => seen('output', i, output(reading.output))),
    ...readings.flatMap(({ digital }, i) =>
      digital === undefined
        ? []
        : [seen('digital', i, ((digital - range.lrv) / Math.abs(range.urv - range.lrv)) * 100)],
    ),
    ...readings.flatMap(({ shown }, i) =>
      shown === undefined || display === undefined || i >= ENOUGH_SHOWN
        ? []
        : [seen('shown', i, ((shown - display.low) / displaySpan) * 100)],
    ),
    ...readings.flatMap(({ untapped }, i) =>
      untapped === undefined ? [] : [seen('untapped', i, output(untapped))],
    ),
    ...(vented === undefined ? [] : [seen('vented', 0, output(vented))]),
    ...others.map(({ gainPercent, usualPercent }, i) => seen('other', i, gainPercent, usualPercent)),
  ];
}

/** Time between readings where none is known, s. */
const USUAL_DWELL_S = 60;

/** Time that went by before each reading, s; at the first, which was come to from the open air, as long as at the others. */
export function dwellsOf(readings: readonly SuspectReading[]): number[] {
  const later = readings.slice(1).map(({ at }, i) => {
    const before = readings[i]?.at;
    return at === undefined || before === undefined ? USUAL_DWELL_S : Math.max(0, at - before);
  });
  const mean = later.reduce((sum, one) => sum + one, 0) / Math.max(1, later.length);
  return readings.length === 0 ? [] : [later.length === 0 ? USUAL_DWELL_S : mean, ...later];
}

/** Pressure of the air where nobody read it, Pa: near the sea and a way up, by the standard atmosphere. */
export const USUAL_AIR_PA = 98_000;

/** What the input reads in the open air, in its unit. */
function ambientOf({ pressureKind, barometer, inputUnit }: Suspected): number {
  if (pressureKind !== 'absolute' || inputUnit === null) return 0;
  return barometer ?? USUAL_AIR_PA / toNumber(PRESSURE_UNITS[inputUnit].factor);
}

/** Works out what would be seen, for many conditions of one case. */
export class Forward {
  private readonly dwells: readonly number[];
  private readonly losing: readonly number[];
  private readonly span: number;
  private readonly inputSpan: number;
  private readonly displaySpan: number;
  private readonly ambient: number;
  private readonly digital: Float64Array;
  private readonly shown: Float64Array;
  private readonly untapped: Float64Array;

  constructor(
    readonly suspected: Suspected,
    readonly seen: readonly Seen[],
  ) {
    const { range, readings, display } = suspected;
    this.dwells = dwellsOf(readings);
    const [mean = 0] = this.dwells;
    this.losing = this.dwells.map((dwell) => (mean > 0 ? dwell / mean : 1));
    this.span = Math.abs(range.outputHigh - range.outputLow);
    this.inputSpan = Math.abs(range.urv - range.lrv);
    this.displaySpan = display === undefined ? 1 : Math.abs(display.high - display.low);
    this.ambient = ambientOf(suspected);
    this.digital = new Float64Array(readings.length);
    this.shown = new Float64Array(readings.length);
    this.untapped = new Float64Array(readings.length);
  }

  /** Share of the output span, before damping and limits. */
  private shareOf(condition: Condition, raw: number, transfers: readonly Transfer[]): number {
    let t = (raw - condition.lrv) / (condition.urv - condition.lrv);
    for (const one of transfers) t = share(one, t);
    return t;
  }

  /** No sensor goes on for ever. */
  private reached(raw: number): number {
    const far = FARTHEST_SPANS * this.inputSpan;
    const { lrv } = this.suspected.range;
    return Math.min(lrv + far, Math.max(lrv - far, raw));
  }

  private outputOf(condition: Condition, p: number): number {
    const { outputLow, outputHigh } = this.suspected.range;
    const bent =
      p + condition.bow * 4 * p * (1 - p) + condition.wave * LARGEST_CUBIC * p * (1 - p) * (1 - 2 * p);
    const along = condition.isReversed ? 1 - bent : bent;
    const ideal = outputLow + along * (outputHigh - outputLow);
    const limited = Math.min(condition.most, Math.max(condition.least, ideal));
    const sent =
      (limited - outputLow) * (1 + condition.outputGain) + outputLow + condition.outputZero * this.span;
    return Number.isNaN(condition.stuck) ? sent * condition.scale : condition.stuck;
  }

  private percent = (output: number): number => ((output - this.suspected.range.outputLow) / this.span) * 100;

  /** Into a column in the order of what was seen, per cent of span. */
  predict(condition: Condition, into: Float64Array): void {
    const { readings, range, display } = this.suspected;
    const count = readings.length;
    const { digital, shown, untapped } = this;
    let held = 0;
    let inLine = this.ambient;
    let damped = 0;
    for (let i = 0; i < count; i += 1) {
      const reading = readings[i] as SuspectReading;
      let x = (reading.applied - condition.referenceOffset) / (1 + condition.referenceGain);
      x -= (condition.leak * (this.losing[i] as number) + condition.passed) * (x - this.ambient);
      x = x * condition.inputGain + condition.inputOffset;
      if (condition.lineS > 0) {
        const missing = condition.late * Math.exp(-(this.dwells[i] as number) / condition.lineS);
        x -= (x - inLine) * Math.min(1, missing);
      }
      inLine = x;
      // A play between input and what follows it; the first reading was come to in its own direction.
      const { friction } = condition;
      if (friction === 0) held = x;
      else if (i === 0)
        held = condition.isFreeAtFirst ? x : reading.direction === 'up' ? x - friction : x + friction;
      else held = Math.min(x + friction, Math.max(x - friction, held));
      const raw = this.reached(held * (1 + condition.sensorGain) + condition.sensorZero);
      const t = this.shareOf(condition, raw, condition.transfers);
      if (condition.lagS === 0) damped = t;
      else {
        if (i === 0) damped = this.shareOf(condition, this.ambient, condition.transfers);
        const missing = condition.late * Math.exp(-(this.dwells[i] as number) / condition.lagS);
        damped = t - (t - damped) * Math.min(1, missing);
      }
      const stood = this.percent(this.outputOf(condition, damped));
      untapped[i] = stood;
      // A tap frees what rubs, so that what it reads then is what there would be without.
      into[i] =
        friction === 0 || reading.untapped === undefined
          ? stood
          : this.percent(
              this.outputOf(
                condition,
                this.shareOf(
                  condition,
                  x * (1 + condition.sensorGain) + condition.sensorZero,
                  condition.transfers,
                ),
              ),
            );
      digital[i] = ((raw - range.lrv) / this.inputSpan) * 100;
      const onDisplay =
        condition.displayTransfers === null ? t : this.shareOf(condition, raw, condition.displayTransfers);
      shown[i] =
        ((condition.displayLow +
          onDisplay * (condition.displayHigh - condition.displayLow) -
          (display?.low ?? 0)) /
          this.displaySpan) *
        100;
    }
    for (let k = count; k < this.seen.length; k += 1) {
      const { channel, place } = this.seen[k] as Seen;
      if (channel === 'digital') into[k] = digital[place] as number;
      else if (channel === 'shown') into[k] = shown[place] as number;
      else if (channel === 'untapped') into[k] = untapped[place] as number;
      else if (channel === 'other') into[k] = -condition.referenceGain * 100;
      else
        into[k] = this.percent(
          this.outputOf(
            condition,
            this.shareOf(condition, this.ambient + condition.sensorZero, condition.transfers),
          ),
        );
    }
  }
}

/** Input spans from the range within which a sensor still tells one pressure from another. */
const FARTHEST_SPANS = 100;

/** So that a wave of one is one at its largest: 1 / max of x (1 - x) (1 - 2 x), at 1/2 - 1/sqrt(12). */
const LARGEST_CUBIC = 18 / Math.sqrt(3);
