/**
 * What a run would read after an act.
 *
 * A trim uses the rising reading, and of several cycles their mean; a span multiplies (common practice, both; another school
 * takes the mean of rising and falling). What acts before the root acts on the input that the output stands for; a trim of
 * the output acts behind it. With the digital value read beside the output, sensor and output stage are predicted apart.
 */
import { inverseShare, share, transferOf, type SignalRange } from '../signal';
import type { Act } from './acts';

export interface ReadForAct {
  readonly direction: 'up' | 'down';
  /** In the input unit. */
  readonly applied: number;
  /** In the output unit. */
  readonly output: number;
  /** The digital value of the sensor, in the input unit, where it was read too. */
  readonly digital?: number | undefined;
}

/** The output read while the transmitter was told to put out the ends of its signal. */
export interface LoopTest {
  readonly atLow: number;
  readonly atHigh: number;
}

/** Both in the input unit. */
export interface TrimPoint {
  readonly applied: number;
  readonly digital: number;
}

export interface Predicted {
  readonly output: number;
  readonly digital: number | null;
  /** Variance of the difference between this and a run to come, in variances of one reading. */
  readonly variance: number;
}

export interface PredictOptions {
  /** Zero is set with nothing applied, not at the low end of the range. */
  readonly isZeroTrimmed: boolean;
  readonly loopTest?: LoopTest | undefined;
  /** Where a sensor is trimmed, and what its digital value was there; at the ends of what was read where it is not said. */
  readonly trimmedAt?: { readonly lower: TrimPoint; readonly upper: TrimPoint } | undefined;
  /** How far the middle stands above the ends, share of the output span; what a linkage takes out. */
  readonly bow: number;
}

/** A place of the signal that an act sets right: what it stands for, and what it should. */
interface Set {
  readonly signal: number;
  readonly applied: number;
  /** Variance of `signal`, in variances of one reading. */
  readonly variance: number;
}

/** What one stage makes of the input, as shares of the input span. */
interface Stage {
  readonly applied: readonly number[];
  readonly signal: readonly number[];
  readonly isRising: readonly boolean[];
}

const mean = (values: readonly number[]): number =>
  values.reduce((total, value) => total + value, 0) / values.length;

/** Within this share of the span two inputs are one point. */
const SAME_POINT = 0.005;
/** Below this share of the output a root hides what comes before it. */
const CLEAR_OF_CUT_OFF = 0.2;

/** The mean of the rising readings at a point, or of the falling ones where none rises; null where there is none. */
function setAt({ applied, signal, isRising }: Stage, wanted: number): Set | null {
  const there = applied.flatMap((x, i) => (Math.abs(x - wanted) <= SAME_POINT ? [i] : []));
  const rising = there.filter((i) => isRising[i]);
  const used = rising.length > 0 ? rising : there;
  if (used.length === 0) return null;
  return {
    signal: mean(used.map((i) => signal[i] ?? 0)),
    applied: mean(used.map((i) => applied[i] ?? 0)),
    variance: 1 / used.length,
  };
}

/** What a straight line through the readings says of a point where nothing was read. */
function setByLine({ applied, signal }: Stage, wanted: number, usable: readonly number[]): Set | null {
  const x = usable.map((i) => applied[i] ?? 0);
  const d = usable.map((i) => (signal[i] ?? 0) - (applied[i] ?? 0));
  const middle = mean(x);
  const sxx = x.reduce((total, value) => total + (value - middle) ** 2, 0);
  if (usable.length < 2 || !(sxx > 0)) return null;
  const slope = x.reduce((total, value, i) => total + (value - middle) * (d[i] ?? 0), 0) / sxx;
  return {
    applied: wanted,
    signal: wanted + mean(d) + slope * (wanted - middle),
    variance: 1 / usable.length + (wanted - middle) ** 2 / sxx,
  };
}

/** The signal moved so that what was set stands right: by one place shifted, by more in straight lines between them. */
function moved(signal: number, sets: readonly Set[]): { readonly signal: number; readonly variance: number } {
  const [first, ...others] = sets;
  if (first === undefined) return { signal, variance: 0 };
  if (others.length === 0)
    return { signal: signal - (first.signal - first.applied), variance: first.variance + 1 };
  const place = Math.min(
    Math.max(
      1,
      sets.findIndex((one, i) => i > 0 && (signal <= one.signal || i === sets.length - 1)),
    ),
    sets.length - 1,
  );
  const [low, high] = [sets[place - 1] ?? first, sets[place] ?? first];
  const t = (signal - low.signal) / (high.signal - low.signal);
  return {
    signal: low.applied + t * (high.applied - low.applied),
    variance: (1 - t) ** 2 * (low.variance + 1) + t ** 2 * (high.variance + 1),
  };
}

class Predictor {
  private readonly transfer;
  private readonly inputSpan: number;
  private readonly outputSpan: number;
  /** What the output stands for, and what the digital value does where it was read at every point. */
  private readonly whole: Stage;
  readonly sensor: Stage | null;
  /** The line from the output that the digital value asks for to what was read. */
  private readonly stageLine: {
    readonly slope: number;
    readonly atLow: number;
    readonly variance: number;
  } | null;

  constructor(
    private readonly range: SignalRange,
    private readonly readings: readonly ReadForAct[],
    private readonly options: PredictOptions,
  ) {
    this.transfer = transferOf(range);
    this.inputSpan = range.urv - range.lrv;
    this.outputSpan = range.outputHigh - range.outputLow;
    const applied = readings.map((one) => this.shareOfInput(one.applied));
    const isRising = readings.map(({ direction }) => direction === 'up');
    this.whole = { applied, isRising, signal: readings.map(({ output }) => this.signalOf(output)) };
    const digital = readings.flatMap((one) => (one.digital === undefined ? [] : [one.digital]));
    this.sensor =
      readings.length > 0 && digital.length === readings.length
        ? { applied, isRising, signal: digital.map((value) => this.shareOfInput(value)) }
        : null;
    this.stageLine = this.lineOfStage();
  }

  private shareOfInput(input: number): number {
    return (input - this.range.lrv) / this.inputSpan;
  }
  private signalOf(output: number): number {
    return inverseShare(this.transfer, (output - this.range.outputLow) / this.outputSpan);
  }
  private outputOf(signal: number): number {
    return this.range.outputLow + this.outputSpan * share(this.transfer, signal);
  }

  private lineOfStage() {
    const { outputLow, outputHigh } = this.range;
    const { loopTest } = this.options;
    if (loopTest !== undefined)
      return {
        atLow: loopTest.atLow,
        slope: (loopTest.atHigh - loopTest.atLow) / (outputHigh - outputLow),
        variance: 1,
      };
    if (this.sensor === null) return null;
    const asked = this.sensor.signal.map((signal) => this.outputOf(signal));
    const middle = mean(asked);
    const read = this.readings.map(({ output }) => output);
    const sxx = asked.reduce((total, value) => total + (value - middle) ** 2, 0);
    if (!(sxx > 0)) return null;
    const slope =
      asked.reduce((total, value, i) => total + (value - middle) * ((read[i] ?? 0) - mean(read)), 0) / sxx;
    return { slope, atLow: mean(read) + slope * (outputLow - middle), variance: 2 / asked.length };
  }

  /** Where zero and the further places of an act are set; null where the readings do not tell them. */
  private sets(stage: Stage, places: 'zero' | 'ends' | 'ends and middle'): readonly Set[] | null {
    const { trimmedAt } = this.options;
    if (trimmedAt !== undefined && stage === this.sensor && places !== 'ends and middle') {
      const { lower, upper } = trimmedAt;
      return (places === 'zero' ? [lower] : [lower, upper]).map(({ applied, digital }) => ({
        applied: this.shareOfInput(applied),
        signal: this.shareOfInput(digital),
        variance: 1,
      }));
    }
    const isStraight = this.transfer.kind === 'linear' || stage === this.sensor;
    const usable = stage.applied.flatMap((x, i) =>
      isStraight || Math.abs(share(this.transfer, x)) >= CLEAR_OF_CUT_OFF ? [i] : [],
    );
    const [least, most] = [Math.min(...stage.applied), Math.max(...stage.applied)];
    const low = isStraight ? setAt(stage, least) : setByLine(stage, 0, usable);
    if (places === 'zero') {
      const trueZero = this.options.isZeroTrimmed ? this.shareOfInput(0) : least;
      const read = isStraight ? setAt(stage, trueZero) : null;
      const set = read ?? setByLine(stage, isStraight || this.options.isZeroTrimmed ? trueZero : 0, usable);
      return set === null ? null : [set];
    }
    const high = setAt(stage, most);
    if (low === null || high === null || !(high.signal > low.signal)) return null;
    if (places === 'ends') return [low, high];
    const middle = [...stage.applied].sort((a, b) => Math.abs(a - 0.5) - Math.abs(b - 0.5))[0];
    const between = middle === undefined ? null : setAt(stage, middle);
    if (between === null || !(between.signal > low.signal && between.signal < high.signal)) return null;
    return [low, between, high];
  }

  /** What is set before the output: on the digital value where it was read, else on what the output stands for. */
  private beforeStage(places: 'zero' | 'ends' | 'ends and middle'): readonly Predicted[] | null {
    const { sensor, stageLine } = this;
    const stage = sensor ?? this.whole;
    const sets = this.sets(stage, places);
    if (sets === null) return null;
    return this.readings.map(({ output }, i) => {
      const signal = stage.signal[i] ?? 0;
      const next = moved(signal, sets);
      if (sensor === null)
        return { output: this.outputOf(next.signal), digital: null, variance: 2 + next.variance };
      const slope = stageLine?.slope ?? 1;
      return {
        output: output + slope * (this.outputOf(next.signal) - this.outputOf(signal)),
        digital: this.range.lrv + next.signal * this.inputSpan,
        variance: 2 + next.variance,
      };
    });
  }

  /** The output set right at both ends of its signal, behind all that comes before. */
  private output(before: readonly Predicted[]): readonly Predicted[] | null {
    const line = this.stageLine;
    if (line === null || !(Math.abs(line.slope) > 0)) return null;
    return before.map(({ output, digital, variance }) => ({
      output: this.range.outputLow + (output - line.atLow) / line.slope,
      digital,
      variance: variance + line.variance,
    }));
  }

  private untouched(): readonly Predicted[] {
    return this.readings.map(({ output, digital }) => ({ output, digital: digital ?? null, variance: 2 }));
  }

  private withoutBow(): readonly Predicted[] | null {
    const straight = this.readings.map((one, i) => {
      const s = share(this.transfer, this.whole.applied[i] ?? 0);
      return { ...one, output: one.output - this.outputSpan * this.options.bow * 4 * s * (1 - s) };
    });
    return new Predictor(this.range, straight, this.options).after('zero and span');
  }

  after(act: Act): readonly Predicted[] | null {
    const andOutput = (before: readonly Predicted[] | null) => (before === null ? null : this.output(before));
    switch (act) {
      case 'none':
        return this.untouched();
      case 'zero':
        return this.beforeStage('zero');
      case 'zero and span':
      case 'sensor trim':
        return this.beforeStage('ends');
      case 'mid-scale':
        return this.beforeStage('ends and middle');
      case 'output trim':
        // Without the digital value a trim of the output cannot be told from one of the sensor.
        return this.stageLine === null ? this.beforeStage('ends') : this.output(this.untouched());
      case 'zero and output trim':
        return this.sensor === null ? null : andOutput(this.beforeStage('zero'));
      case 'sensor and output trim':
        return this.sensor === null ? null : andOutput(this.beforeStage('ends'));
      case 're-range':
        // Another range moves the output and leaves the sensor as it is.
        return this.rangeMoved();
      case 'linkage':
        return this.withoutBow();
      case 'repair':
        return null;
    }
  }

  private rangeMoved(): readonly Predicted[] | null {
    const sets = this.sets(this.whole, 'ends');
    return (
      sets &&
      this.readings.map(({ digital }, i) => {
        const next = moved(this.whole.signal[i] ?? 0, sets);
        return {
          output: this.outputOf(next.signal),
          digital: digital ?? null,
          variance: 2 + next.variance,
        };
      })
    );
  }

  /** The range that it behaves like: the inputs at which the output stands at its ends. */
  get behavesLike(): readonly [lrv: number, urv: number] | null {
    const sets = this.sets(this.whole, 'ends');
    const [low, high] = sets ?? [];
    if (low === undefined || high === undefined) return null;
    const slope = (high.applied - low.applied) / (high.signal - low.signal);
    const at = (signal: number) =>
      this.range.lrv + (low.applied + slope * (signal - low.signal)) * this.inputSpan;
    return [at(0), at(1)];
  }
}

/**
 * What each reading of a run would be after an act, in the order of the readings; null where the readings do not tell it.
 * @param readings of one run; with a root, the point at zero says nothing of zero, so a line through the others does
 */
export const predict = (
  act: Act,
  range: SignalRange,
  readings: readonly ReadForAct[],
  options: PredictOptions,
): readonly Predicted[] | null => new Predictor(range, readings, options).after(act);

/** The inputs at which the output stands at its ends, in the input unit; null where the readings do not tell it. */
export const rangeItBehavesLike = (
  range: SignalRange,
  readings: readonly ReadForAct[],
): readonly [lrv: number, urv: number] | null =>
  new Predictor(range, readings, { isZeroTrimmed: false, bow: 0 }).behavesLike;
