/**
 * Which adjustment fits the errors that were found: what each possible act would leave, the least that suffices, and what no
 * adjustment cures. A first judgement from the readings alone; the decision is the technician's.
 */
import {
  evaluateRun,
  type DecisionRule,
  type RunEvaluation,
  type RunReading,
  type Tolerance,
  type Verdict,
} from '../run';
import type { SignalRange } from '../signal';
import { coverageFactor } from '../uncertainty';
import { ACTS, actsOf, isZeroTrimmed, type Act, type AdjustableBody } from './acts';
import { bestByZero, bestByZeroAndSpan } from './bound';
import { portraitOf, type Portrait } from './portrait';
import {
  predict,
  rangeItBehavesLike,
  type LoopTest,
  type Predicted,
  type PredictOptions,
  type TrimPoint,
} from './predict';

/** Whether an instrument is adjusted only past the adjust limit, or always to the nearest: practitioners differ. */
export const SCHOOLS = ['past the adjust limit', 'always to the nearest'] as const;
export type School = (typeof SCHOOLS)[number];

export interface ReadingWithDigital extends RunReading {
  /** The digital value of the sensor, in the input unit. */
  readonly digital?: number | undefined;
}

export interface AdviceRequest {
  readonly range: SignalRange;
  readonly tolerance: Tolerance;
  readonly readings: readonly ReadingWithDigital[];
  readonly rule?: DecisionRule;
  readonly body: AdjustableBody;
  readonly school?: School;
  /** Smallest step of the reading, in the output unit; no prediction is surer than that. */
  readonly readingStep?: number;
  readonly loopTest?: LoopTest | undefined;
  readonly trimmedAt?: { readonly lower: TrimPoint; readonly upper: TrimPoint } | undefined;
  /** Tapping moved the pointer further than the class of the gauge allows. */
  readonly hasFriction?: boolean;
  /** The range set in it, read from it, is another than the one that it should have. */
  readonly isRangeWrong?: boolean;
}

/** The uncertainty of a prediction: U = k s sqrt(v). */
export interface Spread {
  /** Standard deviation of one reading, per cent of span: its scatter, or its step where that is larger. */
  readonly deviation: number;
  /** Variance of the difference to a run to come, in variances of one reading: of what is set, and of the reading itself. */
  readonly variance: number;
  /** Coverage factor for about 95 %. */
  readonly factor: number;
}

export interface Outlook {
  /** Per cent of span. */
  readonly errorPercentSpan: number;
  /** Expanded, about 95 %, of the difference to the as-left run; null where the readings do not tell it. */
  readonly uncertaintyPercentSpan: number | null;
  /** What that is made of; null where it is null, and where nothing is done. */
  readonly spread: Spread | null;
  readonly output: number;
  /** As a part of the limit; null where that is zero. */
  readonly errorOfLimit: number | null;
  readonly uncertaintyOfLimit: number | null;
  readonly verdict: Verdict;
}

/** Whether all points come inside the adjust limit: with all that is uncertain, as far as it goes, or not. */
export type Suffices = 'surely' | 'likely' | 'no';

export interface ActOutlook {
  readonly act: Act;
  /** In the order of the readings; null where nothing can be told beforehand. */
  readonly points: readonly Outlook[] | null;
  /** Place of the point with the largest error. */
  readonly worst: number | null;
  /** Null where nothing can be told. */
  readonly suffices: Suffices | null;
  /** Errors of the digital value afterwards, per cent of span; null where it was not read. */
  readonly sensorErrorsPercentSpan: readonly number[] | null;
  /** It brings the output right and leaves a fault before it. */
  readonly hides: boolean;
}

/** What no adjustment takes away, per cent of span. */
export interface Incurable {
  readonly what: 'hysteresis' | 'bow' | 'scatter' | 'friction' | 'best';
  readonly size: number;
  /** What it is held against: half the limit, or the adjust limit. */
  readonly allowed: number;
  /** Whether it alone keeps the instrument past the adjust limit. */
  readonly isDecisive: boolean;
}

/** Errors of the two stages of a smart transmitter, per cent of span, in the order of the readings. */
export interface Stages {
  readonly sensor: readonly number[];
  readonly output: readonly number[];
  readonly isSensorOutside: boolean;
  readonly isOutputOutside: boolean;
}

export interface Advice {
  readonly found: RunEvaluation;
  readonly portrait: Portrait;
  readonly school: School;
  /** From the least to the most. */
  readonly acts: readonly ActOutlook[];
  /** The least act that suffices; repair where none does; null where the readings cannot be judged. */
  readonly lead: Act | null;
  readonly incurable: readonly Incurable[];
  /** Null where the digital value was not read at every point. */
  readonly stages: Stages | null;
  /** The range that it behaves like, where that is far from its own: a range set wrongly, not an error of the sensor. */
  readonly behavesLike: readonly [lrv: number, urv: number] | null;
  /** Least largest error that zero, and zero and span, can leave, per cent of span. */
  readonly bestByZero: number;
  readonly bestByZeroAndSpan: number;
}

/** Further off than sensors and output stages go by themselves, per cent of span: look at the settings (from memory). */
export const FURTHER_THAN_DRIFT = 2;

/** Decimals that a prediction is judged with: its arithmetic shall not put it a hair over a limit. */
const cut = (value: number): number => Number(value.toPrecision(12));
const PREDICTED: DecisionRule = { kind: 'simple', judgesBeyondUncertainty: true };
const isInside = (verdict: Verdict | null): boolean => verdict === 'within';

/** The range of the sensor by itself: its digital value against what is applied. */
const sensorRange = ({ lrv, urv }: SignalRange): SignalRange => ({
  lrv,
  urv,
  outputLow: lrv,
  outputHigh: urv,
});

class Adviser {
  readonly found: RunEvaluation;
  readonly portrait: Portrait;
  readonly stages: Stages | null;
  private readonly span: number;

  constructor(private readonly request: AdviceRequest) {
    const { range, tolerance, readings, rule } = request;
    this.found = evaluateRun(range, tolerance, readings, rule);
    this.portrait = portraitOf(range, this.found);
    this.span = Math.abs(range.outputHigh - range.outputLow);
    this.stages = this.stagesOf();
  }

  private judged(range: SignalRange, values: readonly { applied: number; output: number }[]): RunEvaluation {
    return evaluateRun(
      range,
      this.request.tolerance,
      values.map((value, i) => ({
        ...(this.request.readings[i] as RunReading),
        applied: value.applied,
        output: cut(value.output),
      })),
      PREDICTED,
    );
  }

  private stagesOf(): Stages | null {
    const { range, readings } = this.request;
    const digital = readings.flatMap((one) => (one.digital === undefined ? [] : [one.digital]));
    if (readings.length === 0 || digital.length < readings.length) return null;
    const sensor = this.judged(
      sensorRange(range),
      readings.map(({ applied }, i) => ({ applied, output: digital[i] ?? 0 })),
    );
    const output = this.judged(
      range,
      readings.map(({ output: read }, i) => ({ applied: digital[i] ?? 0, output: read })),
    );
    const errors = (of: RunEvaluation) => of.readings.map(({ errorPercentSpan }) => errorPercentSpan);
    return {
      sensor: errors(sensor),
      output: errors(output),
      isSensorOutside: !isInside(sensor.verdict),
      isOutputOutside: !isInside(output.verdict),
    };
  }

  private get options(): PredictOptions {
    const { body, loopTest, trimmedAt } = this.request;
    return {
      isZeroTrimmed: isZeroTrimmed(body),
      loopTest,
      trimmedAt,
      bow:
        (this.portrait.bow?.value ?? 0) /
        100 /
        Math.sign(this.request.range.outputHigh - this.request.range.outputLow),
    };
  }

  /** What one predicted reading is uncertain by; null where nothing is known of the scatter. */
  private partsOf({ variance }: Predicted): Spread | null {
    const { scatter } = this.portrait;
    const step = (this.request.readingStep ?? 0) / Math.sqrt(12);
    if (scatter === null) return null;
    const stepPercent = (step / this.span) * 100;
    const isMeasured = scatter.deviation >= stepPercent;
    return {
      deviation: Math.max(scatter.deviation, stepPercent),
      variance,
      factor: coverageFactor(0.9545, isMeasured ? scatter.degreesOfFreedom : null),
    };
  }
  /** The same expanded, in the output unit. */
  private spreadOf(predicted: Predicted): number | null {
    const parts = this.partsOf(predicted);
    if (parts === null) return null;
    return ((parts.factor * parts.deviation * Math.sqrt(parts.variance)) / 100) * this.span;
  }

  outlook(act: Act): ActOutlook {
    const { range, readings } = this.request;
    const predicted = predict(act, range, readings, this.options);
    if (predicted === null)
      return { act, points: null, worst: null, suffices: null, sensorErrorsPercentSpan: null, hides: false };
    const applied = (i: number): number => readings[i]?.applied ?? 0;
    const moved = (by: (one: Predicted) => number) =>
      this.judged(
        range,
        predicted.map((one, i) => ({ applied: applied(i), output: one.output + by(one) })),
      );
    const spread = (one: Predicted): number => this.spreadOf(one) ?? 0;
    const middle = act === 'none' ? this.found : moved(() => 0);
    const isAllTold = act === 'none' || predicted.every((one) => this.spreadOf(one) !== null);
    const isSure =
      act === 'none' ||
      (isAllTold && [-1, 1].every((side) => isInside(moved((one) => side * spread(one)).verdict)));
    const points = middle.readings.map(({ errorPercentSpan, errorOfLimit, limit, verdict, output }, i) => {
      const one = predicted[i] as Predicted;
      const half = act === 'none' ? 0 : this.spreadOf(one);
      return {
        errorPercentSpan: cut(errorPercentSpan),
        uncertaintyPercentSpan: half === null ? null : (half / this.span) * 100,
        spread: act === 'none' ? null : this.partsOf(one),
        output,
        errorOfLimit,
        uncertaintyOfLimit: half === null || !Number.isFinite(half / limit) ? null : half / limit,
        verdict,
      };
    });
    const sensor = this.sensorAfter(act, predicted);
    const isSensorLeft = sensor !== null && !isInside(sensor.verdict);
    const isInsideAll = isInside(middle.verdict) && !isSensorLeft && !this.isOutputLeft(act);
    return {
      act,
      points,
      worst: worstPlace(points),
      suffices: !isInsideAll ? 'no' : isSure ? 'surely' : 'likely',
      sensorErrorsPercentSpan:
        sensor === null ? null : sensor.readings.map(({ errorPercentSpan: error }) => cut(error)),
      hides: act !== 'none' && isSensorLeft && isInside(middle.verdict),
    };
  }

  private sensorAfter(act: Act, predicted: readonly Predicted[]): RunEvaluation | null {
    if (this.stages === null) return null;
    const { range, readings } = this.request;
    return this.judged(
      sensorRange(range),
      predicted.map(({ digital }, i) => ({
        applied: readings[i]?.applied ?? 0,
        output: digital ?? readings[i]?.digital ?? 0,
      })),
    );
  }

  /** Whether the output stage is outside and an act leaves it so: then two wrongs would hide each other. */
  private isOutputLeft(act: Act): boolean {
    return this.stages?.isOutputOutside === true && !act.includes('output trim');
  }

  incurable(): readonly Incurable[] {
    const { readings } = this.found;
    const { hysteresis, bow, scatter } = this.portrait;
    const limits = readings.map(({ limit }) => this.limitPercent(limit));
    const least = Math.min(...limits);
    if (readings.length === 0 || !Number.isFinite(least)) return [];
    const adjust = (least * this.request.tolerance.adjustAbovePercentOfLimit) / 100;
    const half = least / 2;
    const found: Incurable[] = [];
    // Half of it stays on either side of the best line.
    const add = (what: Incurable['what'], size: number, stays: number) => {
      if (cut(size) > cut(half))
        found.push({ what, size, allowed: half, isDecisive: cut(stays) > cut(adjust) });
    };
    if (hysteresis !== null) add('hysteresis', hysteresis.value, hysteresis.value / 2);
    if (bow !== null && Math.abs(bow.value) > (bow.uncertainty ?? 0))
      add('bow', Math.abs(bow.value), Math.abs(bow.value) / 2);
    if (scatter !== null) add('scatter', 2 * scatter.deviation, 2 * scatter.deviation);
    if (this.request.hasFriction === true)
      found.push({ what: 'friction', size: 0, allowed: half, isDecisive: true });
    const best = bestByZeroAndSpan(readings);
    if (cut(best) > cut(adjust)) found.push({ what: 'best', size: best, allowed: adjust, isDecisive: true });
    return found;
  }

  private limitPercent(limit: number): number {
    const { range, tolerance } = this.request;
    const span = tolerance.domain === 'output' ? this.span : Math.abs(range.urv - range.lrv);
    return (limit / span) * 100;
  }

  /** Whether anything asks to be adjusted, by verdict or by a stage that another one hides. */
  private get isWanting(): boolean {
    return (
      !isInside(this.found.verdict) ||
      this.stages?.isSensorOutside === true ||
      this.stages?.isOutputOutside === true
    );
  }

  /** One where an act trims the output though nothing says that the output is off. */
  private isBlind(act: Act): number {
    return Number(act === 'output trim' && this.stages === null);
  }

  lead(acts: readonly ActOutlook[]): Act | null {
    const { found, request } = this;
    if (found.verdict === null || found.verdict === 'not-judged') return null;
    if (request.isRangeWrong === true && acts.some(({ act }) => act === 're-range')) return 're-range';
    // Not told apart from the sensor, a trim of the output could hide its fault: it comes after all others.
    const inOrder = [...acts].sort((a, b) => this.isBlind(a.act) - this.isBlind(b.act));
    if (!this.isWanting) return request.school === 'always to the nearest' ? nearest(inOrder) : 'none';
    // Friction beyond the class is repaired before anything is turned.
    if (request.hasFriction === true) return 'repair';
    const honest = inOrder.filter(({ act, hides }) => act !== 'none' && act !== 're-range' && !hides);
    if (request.school === 'always to the nearest') {
      const near = nearest(honest.filter(({ suffices }) => suffices === 'surely' || suffices === 'likely'));
      return near === 'none' ? 'repair' : near;
    }
    return (
      honest.find(({ suffices }) => suffices === 'surely')?.act ??
      honest.find(({ suffices }) => suffices === 'likely')?.act ??
      'repair'
    );
  }
}

function worstPlace(points: readonly Outlook[]): number | null {
  let worst: number | null = null;
  points.forEach(({ errorPercentSpan }, i) => {
    if (worst === null || Math.abs(errorPercentSpan) > Math.abs(points[worst]?.errorPercentSpan ?? 0))
      worst = i;
  });
  return worst;
}

/** Size of the largest predicted error, per cent of span. */
export const worstOf = ({ points, worst }: ActOutlook): number | null =>
  points === null || worst === null ? null : Math.abs(points[worst]?.errorPercentSpan ?? 0);

/** The least act that comes as near as any: a larger one has to gain more than what is uncertain of it. */
function nearest(acts: readonly ActOutlook[]): Act {
  const told = acts.flatMap((one) => {
    const worst = worstOf(one);
    return worst === null || one.hides || one.act === 're-range' ? [] : [{ one, worst }];
  });
  const least = Math.min(...told.map(({ worst }) => worst));
  const best = told.find(({ worst }) => worst === least);
  const margin = best?.one.points?.[best.one.worst ?? 0]?.uncertaintyPercentSpan ?? 0;
  return told.find(({ worst }) => worst <= least + margin)?.one.act ?? 'none';
}

/**
 * Advice on a run.
 * @throws CoreError as `evaluateRun`
 */
export function adviseOn(request: AdviceRequest): Advice {
  const adviser = new Adviser(request);
  const { found, portrait, stages } = adviser;
  const has = new Set(actsOf(request.body));
  const acts = ACTS.filter((act) => has.has(act))
    .map((act) => adviser.outlook(act))
    // What needs the digital value is no choice where it was not read.
    .filter(({ act, points }) => points !== null || act === 'repair' || act === 'none');
  const { readings } = found;
  const { zero, gain } = portrait;
  const isFar = [zero, gain].some((one) => one !== null && Math.abs(one.value) > FURTHER_THAN_DRIFT);
  return {
    found,
    portrait,
    stages,
    school: request.school ?? 'past the adjust limit',
    acts,
    lead: adviser.lead(acts),
    incurable: adviser.incurable(),
    behavesLike: isFar ? rangeItBehavesLike(request.range, request.readings) : null,
    bestByZero: bestByZero(readings),
    bestByZeroAndSpan: bestByZeroAndSpan(readings),
  };
}
