/**
 * Simulated instruments with one thing behind their errors, read as a technician reads them, for whoever suspects: what is drawn is
 * known to the scorer alone. Sizes are inventions, drawn apart from the priors of the suspects: a fault is at least as large as the
 * limit at one point, and not much larger than practice has it.
 */
import { toNumber } from '@barys/core/exact';
import type { Direction } from '@barys/core/procedure';
import { expectedOutput, LINEAR, type SignalRange, type Transfer } from '@barys/core/signal';
import { SUSPICIONS, type MeasuredWithIt, type Suspected, type Suspicion } from '@barys/core/suspects';
import { PRESSURE_UNITS, type PressureKind, type PressureUnit } from '@barys/core/units';
import type { Analog } from '../analog';
import { makeChance, type Chance } from '../chance';
import type { Settings } from '../smart';
import { soundParts, worldOf, type Parts } from '../world';

export interface DrawnCase {
  readonly truth: Suspicion;
  readonly suspected: Suspected;
}

const ROOT: Transfer = { kind: 'square-root' };
const NEEDS_ROOT: ReadonlySet<Suspicion> = new Set(['root missing', 'root doubled']);
const NEEDS_DIGITAL: ReadonlySet<Suspicion> = new Set(['output zero', 'output gain']);
const NEEDS_ANALOG: ReadonlySet<Suspicion> = new Set(['friction', 'bent']);
const CAN_BE_ANALOG: ReadonlySet<Suspicion> = new Set(['nothing', 'zero', 'gain', 'zero and gain']);
/** Units that one plant uses side by side. */
const COMMON: readonly PressureUnit[] = [
  'kPa',
  'mbar',
  'bar',
  'psi',
  'inH2OAt68F',
  'kgfPerCm2',
  'Torr',
  'MPa',
];
const WATERS: readonly PressureUnit[] = ['inH2OAt4C', 'inH2OAt60F', 'inH2OAt68F', 'inH2OConventional'];

const pascals = (unit: PressureUnit): number => toNumber(PRESSURE_UNITS[unit].factor);

class Draw {
  constructor(readonly chance: Chance) {}
  pick<T>(from: readonly [T, ...T[]] | readonly T[]): T {
    return from[Math.min(from.length - 1, Math.floor(this.chance.uniform(0, from.length)))] as T;
  }
  does(share: number): boolean {
    return this.chance.uniform(0, 1) < share;
  }
  /** Either way, by at least and at most. */
  either(least: number, most: number): number {
    return (this.does(0.5) ? 1 : -1) * this.chance.uniform(least, most);
  }
}

/** What the instrument should be, and what the people at it know. */
interface Plan {
  readonly truth: Suspicion;
  readonly range: SignalRange;
  readonly transfer: Transfer;
  readonly unit: PressureUnit;
  readonly kind: PressureKind;
  readonly limitPercent: number;
  readonly isAnalog: boolean;
  readonly hasDigital: boolean;
  readonly hasDisplay: boolean;
  readonly isInVolts: boolean;
  readonly neighbours: readonly { readonly name: string; readonly range: SignalRange }[];
}

function kindFor(truth: Suspicion, draw: Draw): PressureKind {
  if (truth === 'sides exchanged' || NEEDS_ROOT.has(truth) || truth === 'root misplaced')
    return 'differential';
  if (truth === 'absolute or gauge') return draw.pick(['gauge', 'absolute'] as const);
  return draw.pick(['gauge', 'differential'] as const);
}

function plan(truth: Suspicion, draw: Draw): Plan {
  const unit =
    truth === 'water reference' ? draw.pick(WATERS) : draw.pick(['kPa', 'mbar', 'bar', 'inH2OAt4C'] as const);
  const kind = kindFor(truth, draw);
  const pa = draw.pick(
    kind === 'differential'
      ? [6000, 10_000, 25_000, 50_000, 100_000]
      : [50_000, 100_000, 200_000, 600_000, 1_600_000],
  );
  const urv = Number((pa / pascals(unit)).toPrecision(2));
  const isRoot =
    NEEDS_ROOT.has(truth) || (kind === 'differential' && truth !== 'root misplaced' && draw.does(0.25));
  const isElevated = !isRoot && kind === 'differential' && draw.does(0.2);
  const lrv = isElevated ? -Number((urv * draw.chance.uniform(0.2, 0.6)).toPrecision(2)) : 0;
  const transfer = isRoot ? ROOT : LINEAR;
  const isInVolts = truth === 'resistor' || draw.does(0.15);
  const signal = isInVolts ? { outputLow: 1, outputHigh: 5 } : { outputLow: 4, outputHigh: 20 };
  const range: SignalRange = { lrv, urv, ...signal, ...(isRoot ? { transferFunction: ROOT } : {}) };
  const isAnalog = NEEDS_ANALOG.has(truth) || (CAN_BE_ANALOG.has(truth) && draw.does(0.3));
  const neighbours =
    truth === 'neighbouring range' || draw.does(0.3)
      ? [draw.pick([0.5, 0.8, 1.25]), draw.pick([1.6, 2, 0.4])].map((by, i) => ({
          name: `configuration ${i + 1}`,
          range: { ...range, lrv: 0, urv: Number((urv * by).toPrecision(3)) },
        }))
      : [];
  return {
    truth,
    range,
    transfer,
    unit,
    kind,
    limitPercent: truth === 'water reference' ? draw.pick([0.075, 0.1]) : draw.pick([0.1, 0.25, 0.5, 1]),
    isAnalog: isAnalog && !isRoot,
    hasDigital: !isAnalog && (NEEDS_DIGITAL.has(truth) || draw.does(0.4)),
    hasDisplay: !isAnalog && (truth === 'display scale' || draw.does(0.2)),
    isInVolts,
    neighbours,
  };
}

/** Another range than it should be: a round one, a slip, or both ends. */
function otherRange({ range }: Plan, draw: Draw): { lrv: number; urv: number } {
  const { lrv, urv } = range;
  const how = draw.chance.uniform(0, 1);
  if (how < 0.4)
    return { lrv, urv: Number((urv * draw.pick([0.5, 0.6, 0.8, 1.2, 1.25, 1.5, 2])).toPrecision(2)) };
  if (how < 0.7) return { lrv, urv: lrv + (urv - lrv) * (1 + draw.either(0.03, 0.3)) };
  const shift = draw.either(0.03, 0.25) * (urv - lrv);
  return { lrv: lrv + shift, urv: lrv + shift + (urv - lrv) * (1 + draw.either(0.03, 0.3)) };
}

/** What is set in a smart transmitter. */
function settingsOf(plan: Plan, draw: Draw): Settings {
  const { truth, range, transfer, unit, neighbours } = plan;
  let [lrv, urv, own, scaled] = [range.lrv, range.urv, transfer, transfer];
  let drivenBy: Settings['drivenBy'] = 'pressure';
  const scaledBy = (other: PressureUnit): void => {
    const by = pascals(other) / pascals(unit);
    [lrv, urv] = [lrv * by, urv * by];
  };
  const far = (other: PressureUnit): number => Math.abs(Math.log(pascals(other) / pascals(unit)));
  if (truth === 'water reference') scaledBy(draw.pick(WATERS.filter((one) => far(one) > 0.0008)));
  if (truth === 'unit')
    scaledBy(draw.pick(COMMON.filter((one) => far(one) > 0.01 && far(one) < Math.log(20))));
  if (truth === 'range') ({ lrv, urv } = otherRange(plan, draw));
  if (truth === 'neighbouring range') ({ lrv, urv } = draw.pick(neighbours).range);
  if (truth === 'root missing') [own, scaled] = [LINEAR, LINEAR];
  if (truth === 'root doubled') drivenBy = 'scaled variable';
  if (truth === 'root misplaced') [own, scaled] = [ROOT, ROOT];
  if (truth === 'reversed') [lrv, urv] = [urv, lrv];
  const [displayLow, displayHigh] =
    truth === 'display scale'
      ? draw.does(0.5)
        ? [0, 100]
        : [0, 80 * (1 + draw.either(0.05, 0.5))]
      : [0, 80];
  return {
    lrv,
    urv,
    transfer: own,
    dampingS: truth === 'not settled' && draw.does(0.5) ? draw.chance.uniform(8, 25) : 0.4,
    displayDampingS: 0.4,
    displayLow,
    displayHigh,
    drivenBy,
    scaledTransfer: scaled,
    isProtected: false,
  };
}

/** Sizes that a fault has beside the limit. */
const size = (plan: Plan, draw: Draw): number => draw.either(1.3, 6) * plan.limitPercent;

function analogOf(plan: Plan, draw: Draw): Analog {
  const { range, limitPercent, truth } = plan;
  const limit = limitPercent / 100;
  const span = range.urv - range.lrv;
  let zero = draw.chance.normal() * 0.15 * limit;
  let gain = draw.chance.normal() * 0.15 * limit;
  if (truth === 'zero' || truth === 'zero and gain') zero += size(plan, draw) / 100;
  if (truth === 'gain' || truth === 'zero and gain') gain += size(plan, draw) / 100;
  const actual = span / (1 + gain);
  const lrv = range.lrv - zero * span;
  return {
    range: { lrv, urv: lrv + actual, outputLow: 4, outputHigh: 20 },
    pivot: 0,
    zeroPerTurn: 0,
    spanPerTurn: 0,
    backlashTurns: 0,
    bend: truth === 'bent' ? draw.chance.uniform(1.3, 5) * limit : draw.chance.normal() * 0.06 * limit,
    loop: Math.abs(draw.chance.normal()) * 0.06 * limit,
    friction: truth === 'friction' ? draw.chance.uniform(2.4, 7) * limit : 0,
    dampingS: 0.3,
    noise: { sigma: 0.03 * limit, tauS: 0.8 },
    zeroPer10K: 0,
    spanPer10K: 0,
    positionHead: 0,
    perVolt: 0,
    saturation: [2, 24],
  };
}

interface Reference {
  readonly gain: number;
  readonly offset: number;
}

/** The reference of the run, and how others were found with it. */
function referenceOf(plan: Plan, draw: Draw): { reference: Reference; others: MeasuredWithIt[] } {
  const limit = plan.limitPercent / 100;
  const span = plan.range.urv - plan.range.lrv;
  const isWrong = plan.truth === 'reference';
  const isGain = draw.does(0.6);
  const reference = {
    gain:
      isWrong && isGain ? draw.either(1.3, 3) * Math.max(limit, 0.003) : draw.chance.normal() * 0.05 * limit,
    offset:
      isWrong && !isGain ? draw.either(1.3, 3) * limit * span : draw.chance.normal() * 0.05 * limit * span,
  };
  const knows = draw.does(0.5);
  const usualPercent = Math.max(plan.limitPercent / 2, 0.1);
  const others = knows
    ? Array.from({ length: draw.pick([2, 3, 5]) }, (_one, i) => ({
        name: `instrument ${i + 1}`,
        gainPercent: -reference.gain * 100 + draw.chance.normal() * usualPercent,
        usualPercent,
      }))
    : [];
  return { reference, others };
}

/** Ohms of a loop beside the meter, as the sound world has them. */
const LOOP_OHM = 15 + 250 + 8;

function partsOf(plan: Plan, reference: Reference, draw: Draw, seed: number): Parts {
  const { truth, range, limitPercent, unit } = plan;
  const { chance } = draw;
  const span = range.urv - range.lrv;
  const limit = limitPercent / 100;
  const settings = settingsOf(plan, draw);
  const parts = soundParts({ ...settings, lrv: range.lrv, urv: range.urv }, seed);
  if (parts.source.kind !== 'controller' || parts.tested.kind !== 'smart transmitter')
    throw new Error('A sound world has a controller and a smart transmitter.');
  const { controller } = parts.source;
  const is = (one: Suspicion) => (truth === one ? 1 : 0);
  const both = is('zero and gain');
  const air = 101_325 / pascals(unit);
  const offset =
    chance.normal() * 0.15 * limit * span +
    (is('zero') + both) * (size(plan, draw) / 100) * span +
    is('absolute or gauge') * (plan.kind === 'absolute' ? -air : air);
  const gain =
    chance.normal() * 0.15 * limit +
    (is('gain') + both) * (size(plan, draw) / 100) -
    2 * is('sides exchanged');
  const { smart } = parts.tested;
  const isPlugged = truth === 'not settled' && settings.dampingS < 1;
  const isPassing = truth === 'leak' && draw.does(0.5);
  const fillS = isPlugged ? chance.uniform(8, 25) : isPassing ? 2 : 0.02;
  const lost = chance.uniform(1.5, 6) * limit;
  return {
    ...parts,
    source: { kind: 'controller', controller: { ...controller, ...reference } },
    line: {
      ...parts.line,
      ambient: air,
      fillS,
      leakS: truth !== 'leak' ? Infinity : isPassing ? fillS / lost : 25 / lost,
      head:
        is('head') * ((draw.pick([1000, 1000, 850, 1110]) * 9.80665 * draw.either(0.1, 2.5)) / pascals(unit)),
    },
    tested: plan.isAnalog
      ? { kind: 'analog transmitter', analog: analogOf(plan, draw) }
      : {
          kind: 'smart transmitter',
          settings,
          smart: {
            sensor: {
              ...smart.sensor,
              offset,
              gain,
              noise: {
                sigma: truth === 'scatter' ? chance.uniform(1, 4) * limit * span : 0.02 * limit * span,
                tauS: 0.8,
              },
            },
            stage: {
              ...smart.stage,
              offset: 16 * (chance.normal() * 0.06 * limit + is('output zero') * (size(plan, draw) / 100)),
              gain: chance.normal() * 0.03 * limit + is('output gain') * (size(plan, draw) / 100),
            },
          },
        },
    loop: {
      ...parts.loop,
      seriesOhm:
        truth === 'resistor'
          ? draw.does(0.5)
            ? draw.pick([100, 240, 270, 300, 500])
            : 250 * (1 + draw.either(0.012, 0.06))
          : 250,
      supplyV: truth === 'saturated' ? 12 + (LOOP_OHM * chance.uniform(9, 19.4)) / 1000 : 30,
    },
    stuckMilliamp: truth === 'stuck' ? chance.uniform(4, 20.5) : null,
  };
}

/** Points that are gone to, per cent of the input span, and the way there. */
function pointsOf(draw: Draw): readonly (readonly [number, Direction])[] {
  const up = draw.does(0.8) ? [0, 25, 50, 75, 100] : [0, 50, 100];
  const rising = up.map((percent) => [percent, 'up'] as const);
  return draw.does(0.75)
    ? [
        ...rising,
        ...[...up]
          .reverse()
          .slice(1)
          .map((percent) => [percent, 'down'] as const),
      ]
    : rising;
}

const rounded = (value: number, step: number): number =>
  Number((Math.round(value / step) * step).toPrecision(12));

/** Longest that is waited for a source to stand, s. */
const LONGEST_WAIT_S = 90;

function read(plan: Plan, parts: Parts, draw: Draw, seed: number): Suspected['readings'] {
  const world = worldOf(parts, seed);
  const { source } = world;
  if (source.kind !== 'controller') throw new Error('A case is read with a controller.');
  const { range, truth } = plan;
  const span = range.urv - range.lrv;
  const knowsTime = draw.does(0.6);
  let time = 0;
  const pass = (seconds: number): void => {
    world.step(seconds);
    time += seconds;
  };
  // It stood open before anybody came.
  world.step(120);
  return pointsOf(draw).map(([percent, direction]) => {
    source.set(range.lrv + (span * percent) / 100);
    for (let waited = 0; waited < LONGEST_WAIT_S && (waited < 3 || !source.isStable); waited += 1) pass(1);
    const applied = rounded(world.shown.reference, span * 1e-5);
    // A leak out of what is shut in goes on from here, while the reference was read.
    if (truth === 'leak' && parts.line.fillS < 1) source.hold();
    pass(truth === 'not settled' ? draw.chance.uniform(2, 12) : draw.chance.uniform(15, 40));
    const { meter, receivers, digital, own } = world.shown;
    const volts = ((4 + (16 * (receivers[0] ?? 0)) / 100) / 1000) * 250;
    return {
      applied,
      output: plan.isInVolts ? rounded(volts, 0.0001) : rounded(meter ?? 0, 0.0005),
      direction,
      ...(knowsTime ? { at: time } : {}),
      ...(plan.hasDigital && digital !== null ? { digital: rounded(digital, span * 1e-5) } : {}),
      ...(plan.hasDisplay && own !== null ? { shown: rounded(own, 0.01) } : {}),
    };
  });
}

/** What the instrument reads when it is drained and open to the air. */
function ventedOf(plan: Plan, parts: Parts, seed: number): number {
  const world = worldOf({ ...parts, line: { ...parts.line, head: 0 } }, seed);
  world.hook(plan.kind === 'absolute' ? 101_325 / pascals(plan.unit) : 0);
  world.step(120);
  const { meter, receivers } = world.shown;
  return plan.isInVolts ? ((4 + (16 * (receivers[0] ?? 0)) / 100) / 1000) * 250 : (meter ?? 0);
}

const isOutside = ({ range, limitPercent, readings, display }: Suspected): boolean => {
  const span = Math.abs(range.outputHigh - range.outputLow);
  return readings.some(({ applied, output, shown }) => {
    const ideal = expectedOutput(range, applied);
    const share = (ideal - range.outputLow) / (range.outputHigh - range.outputLow);
    const isDisplayOff =
      shown !== undefined &&
      display !== undefined &&
      Math.abs(shown - display.low - share * (display.high - display.low)) >
        (limitPercent / 100) * (display.high - display.low);
    return Math.abs(output - ideal) > (limitPercent / 100) * span || isDisplayOff;
  });
};

function drawOnce(truth: Suspicion, seed: number): DrawnCase {
  const draw = new Draw(makeChance(seed));
  const made = plan(truth, draw);
  const { reference, others } = referenceOf(made, draw);
  const parts = partsOf(made, reference, draw, seed);
  const readings = read(made, parts, draw, seed);
  const knowsAir = draw.does(0.7);
  return {
    truth,
    suspected: {
      range: made.range,
      readings,
      limitPercent: made.limitPercent,
      stepPercent: made.isInVolts ? 0.0025 : 0.003,
      inputUnit: made.unit,
      pressureKind: made.kind,
      saturation: made.isAnalog
        ? made.isInVolts
          ? [0.5, 6]
          : [2, 24]
        : made.isInVolts
          ? [0.95, 5.125]
          : [3.8, 20.5],
      ...(made.isInVolts ? { resistorOhm: 250 } : {}),
      ...(knowsAir ? { barometer: 101_325 / pascals(made.unit) } : {}),
      ...(made.neighbours.length > 0 ? { neighbours: made.neighbours } : {}),
      ...(made.hasDisplay ? { display: { low: 0, high: 80 } } : {}),
      ...(draw.does(0.3) ? { vented: ventedOf(made, parts, seed + 1) } : {}),
      ...(others.length > 0 ? { others } : {}),
    },
  };
}

const MOST_DRAWS = 40;

/**
 * A case of what is planted; drawn again until a fault takes a reading outside the limit, and nothing does not. The same seed gives
 * the same case.
 */
export function drawCase(truth: Suspicion, seed: number): DrawnCase {
  for (let again = 0; again < MOST_DRAWS; again += 1) {
    const drawn = drawOnce(truth, seed * MOST_DRAWS + again);
    if (isOutside(drawn.suspected) === (truth !== 'nothing')) return drawn;
  }
  throw new Error(`No case of ${truth} came outside its limit in ${MOST_DRAWS} draws.`);
}

/** Cases of everything in equal numbers, one seed each. */
export const drawCases = (each: number, firstSeed: number): readonly DrawnCase[] =>
  SUSPICIONS.flatMap((truth, kind) =>
    Array.from({ length: each }, (_one, i) => drawCase(truth, firstSeed + kind * each + i)),
  );
