/**
 * What can be behind the readings of a run. Each suspicion is a condition of the instrument, its reference or its surroundings with
 * parameters and how large they usually are. What is usual is common practice, from memory; a suspicion that cannot be (a head where
 * nothing is a pressure, a display that nobody read) is left out.
 */
import { toNumber } from '../exact';
import { LINEAR, transferOf } from '../signal';
import { PRESSURE_UNITS, type PressureUnit } from '../units';
import { dwellsOf, USUAL_AIR_PA, type Suspected } from './condition';
import type { Variant } from './evidence';
import { between, logNormal, normal } from './priors';

export const SUSPICIONS = [
  'nothing',
  'zero',
  'gain',
  'zero and gain',
  'output zero',
  'output gain',
  'water reference',
  'unit',
  'range',
  'neighbouring range',
  'root missing',
  'root doubled',
  'root misplaced',
  'reversed',
  'absolute or gauge',
  'sides exchanged',
  'head',
  'resistor',
  'saturated',
  'stuck',
  'leak',
  'not settled',
  'friction',
  'bent',
  'scatter',
  'display scale',
  'reference',
] as const;
export type Suspicion = (typeof SUSPICIONS)[number];

/**
 * How often each is met, beside the others. Nobody counts what is behind errors, so that one is taken to be as likely as another, but
 * for what everybody meets most.
 */
const OFTEN: Partial<Record<Suspicion, number>> = { nothing: 2, zero: 2, gain: 1.5 };
export const frequencyOf = (suspicion: Suspicion): number => OFTEN[suspicion] ?? 1;

const WATER_KG_PER_M3 = 1000;
const GRAVITY = 9.80665;

/** Head of a metre of a liquid in the input unit. */
export const headOfMetre = (unit: PressureUnit, densityKgPerM3 = WATER_KG_PER_M3): number =>
  (densityKgPerM3 * GRAVITY) / toNumber(PRESSURE_UNITS[unit].factor);

const AIR_SPREAD_PA = 4000;
/** A barometer that was read may stand in another room. */
const READ_AIR_SPREAD_PA = 150;

const factorOf = (unit: PressureUnit): number => toNumber(PRESSURE_UNITS[unit].factor);

/** A column of water of another temperature with the same length. */
function waterUnits(unit: PressureUnit): PressureUnit[] {
  const column = PRESSURE_UNITS[unit].column;
  if (column === undefined || toNumber(column.densityKgPerM3) > 2000) return [];
  return (Object.keys(PRESSURE_UNITS) as PressureUnit[]).filter((other) => {
    const one = PRESSURE_UNITS[other].column;
    return (
      other !== unit &&
      one !== undefined &&
      toNumber(one.densityKgPerM3) < 2000 &&
      one.lengthM.equals(column.lengthM)
    );
  });
}

/** Farther than this two units are not mistaken for each other: the output would stand at an end. */
const FARTHEST_UNIT = 30;
/** Nearer than this nobody could tell them apart. */
const NEAREST_UNIT = 0.0004;

function otherUnits(unit: PressureUnit): PressureUnit[] {
  const water = new Set(waterUnits(unit));
  const factors = new Set<string>();
  return (Object.keys(PRESSURE_UNITS) as PressureUnit[]).filter((other) => {
    const ratio = factorOf(other) / factorOf(unit);
    const far = Math.abs(Math.log(ratio));
    if (water.has(other) || far < NEAREST_UNIT || far > Math.log(FARTHEST_UNIT)) return false;
    // Units of one size, and water of one length, look alike: the first stands for them.
    const key = ratio.toPrecision(3);
    if (factors.has(key)) return false;
    factors.add(key);
    return true;
  });
}

/** First digits that upper range values usually have. */
const ROUND = [1, 1.2, 1.25, 1.5, 1.6, 2, 2.5, 3, 4, 5, 6, 7.5, 8];

/** Round upper range values beside one, within a factor of four. */
function roundValues(urv: number): number[] {
  const size = Math.abs(urv);
  const decade = 10 ** Math.floor(Math.log10(size));
  return [-1, 0, 1]
    .flatMap((power) => ROUND.map((digits) => Number((digits * decade * 10 ** power).toPrecision(6))))
    .filter((value) => value !== size && value > size / 4 && value < size * 4)
    .map((value) => Math.sign(urv) * value);
}

/** Resistors that stand where another should. */
const RESISTORS = [50, 100, 120, 125, 150, 200, 240, 249, 250, 270, 300, 500, 600];

const alone = (variant: Omit<Variant, 'weight'>): Variant[] => [{ ...variant, weight: 1 }];
const alike = (variants: readonly Omit<Variant, 'weight'>[], weight = 1): Variant[] =>
  variants.map((variant) => ({ ...variant, weight: weight / variants.length }));

class Suspecting {
  private readonly span: number;
  private readonly limit: number;
  private readonly isRoot: boolean;
  private readonly unit: PressureUnit | null;
  private readonly knowsDigital: boolean;

  constructor(private readonly of: Suspected) {
    const { range, limitPercent } = of;
    this.unit = of.inputUnit;
    this.knowsDigital = of.readings.some(({ digital }) => digital !== undefined);
    this.span = Math.abs(range.urv - range.lrv);
    this.limit = limitPercent / 100;
    this.isRoot = transferOf(range).kind.startsWith('square-root');
  }

  /** How far zero or gain usually drifts when it does, share of span: as its history says, or some limits. */
  private drift(of: 'zeroPercent' | 'gainPercent'): number {
    const { drifts = [] } = this.of;
    const usual = Math.max(2.5 * this.limit, 0.01);
    if (drifts.length < 3) return usual;
    const rms = Math.sqrt(drifts.reduce((sum, one) => sum + one[of] ** 2, 0) / drifts.length) / 100;
    return Math.min(usual, Math.max(this.limit, 3 * rms));
  }

  private readonly zeroes = () => normal(0, this.drift('zeroPercent') * this.span);
  private readonly gains = () => normal(0, this.drift('gainPercent'));

  private rangeVariants(): Variant[] {
    const { lrv, urv } = this.of.range;
    const free: Variant[] = [
      {
        weight: 0.25,
        parameters: [logNormal(1, 0.3)],
        condition: ([by = 1]) => ({ urv: lrv + (urv - lrv) * by }),
      },
      {
        weight: 0.25,
        parameters: [normal(0, 0.2 * this.span), logNormal(1, 0.3)],
        condition: ([shift = 0, by = 1]) => ({ lrv: lrv + shift, urv: lrv + shift + (urv - lrv) * by }),
      },
    ];
    if (lrv !== 0) return free.map((one) => ({ ...one, weight: one.weight * 2 }));
    return [
      ...free,
      ...alike(
        roundValues(urv).map((value) => ({ parameters: [], condition: () => ({ urv: value }) })),
        0.5,
      ),
    ];
  }

  private unitVariants(units: readonly PressureUnit[]): Variant[] {
    const { range, inputUnit } = this.of;
    if (inputUnit === null) return [];
    return alike(
      units.map((unit) => {
        const by = factorOf(unit) / factorOf(inputUnit);
        return {
          name: unit,
          parameters: [],
          condition: () => ({ lrv: range.lrv * by, urv: range.urv * by }),
        };
      }),
    );
  }

  private airVariants(): Variant[] {
    const { inputUnit, pressureKind, barometer } = this.of;
    if (inputUnit === null) return [];
    const pa = factorOf(inputUnit);
    const air =
      barometer === undefined
        ? normal(USUAL_AIR_PA / pa, AIR_SPREAD_PA / pa)
        : normal(barometer, READ_AIR_SPREAD_PA / pa);
    if (pressureKind === 'gauge' || pressureKind === 'compound')
      return alone({ parameters: [air], condition: ([by = 0]) => ({ sensorZero: by }) });
    if (pressureKind === 'absolute')
      return alone({ parameters: [air], condition: ([by = 0]) => ({ sensorZero: -by }) });
    return [];
  }

  private displayVariants(): Variant[] {
    const { display, readings, range } = this.of;
    if (display === undefined || readings.every(({ shown }) => shown === undefined)) return [];
    const { low, high } = display;
    const scales = [
      { name: 'per cent', low: 0, high: 100 },
      { name: 'the input', low: range.lrv, high: range.urv },
      { name: 'the output', low: range.outputLow, high: range.outputHigh },
    ].filter((one) => one.low !== low || one.high !== high);
    return [
      ...alike(
        scales.map((one) => ({
          name: one.name,
          parameters: [],
          condition: () => ({ displayLow: one.low, displayHigh: one.high }),
        })),
        0.5,
      ),
      {
        weight: 0.5,
        parameters: [logNormal(1, 0.4)],
        condition: ([by = 1]) => ({ displayHigh: low + (high - low) * by }),
      },
    ];
  }

  private misplaced(): Variant[] {
    const { readings, range } = this.of;
    const root = { kind: 'square-root' } as const;
    if (!this.isRoot)
      return transferOf(range).kind === 'linear'
        ? alone({ parameters: [], condition: () => ({ transfers: [root] }) })
        : [];
    // Taken for the display and not for the output, or for the display once more.
    if (readings.every(({ shown }) => shown === undefined)) return [];
    const own = transferOf(range);
    return alike([
      { parameters: [], condition: () => ({ transfers: [LINEAR], displayTransfers: [own] }) },
      { parameters: [], condition: () => ({ displayTransfers: [own, root] }) },
    ]);
  }

  private settling(): Variant[] {
    const [mean = 0] = dwellsOf(this.of.readings);
    const parameters = [logNormal(Math.max(mean, 1e-3) / 2.5, 0.5), logNormal(1, 0.3)];
    return alike([
      { parameters, condition: ([lagS = 0, late = 1]) => ({ lagS, late, vague: this.vague }) },
      { parameters, condition: ([lineS = 0, late = 1]) => ({ lineS, late, vague: this.vague }) },
    ]);
  }

  /** Effects of time are vague where nobody wrote it down. */
  private get vague(): number {
    return this.of.readings.every(({ at }) => at !== undefined) ? 0.06 : 0.35;
  }

  /** Of the sensor, about true zero; or by a screw or a lever, about the low end. */
  private gainVariants(): Variant[] {
    const { lrv } = this.of.range;
    const parameters = [this.gains()];
    const ofSensor = { parameters, condition: ([sensorGain = 0]: readonly number[]) => ({ sensorGain }) };
    if (lrv === 0) return alone(ofSensor);
    const ofSpan = {
      parameters,
      condition: ([sensorGain = 0]: readonly number[]) => ({ sensorGain, sensorZero: -sensorGain * lrv }),
    };
    // What reads a signal and no pressure has no true zero but its live one.
    return this.unit === null ? alone(ofSpan) : alike([ofSensor, ofSpan]);
  }

  /** Out of what was shut in, so that more is lost the longer it stands; or past a restriction, always the same share. */
  private leaks(): Variant[] {
    const parameters = [logNormal(Math.max(2 * this.limit, 0.01), 0.9)];
    return alike([
      { parameters, condition: ([leak = 0]) => ({ leak, vague: this.vague }) },
      { parameters, condition: ([leak = 0]) => ({ passed: leak }) },
    ]);
  }

  private resistors(): Variant[] {
    const { resistorOhm } = this.of;
    if (resistorOhm === undefined) return [];
    return [
      {
        weight: 0.5,
        parameters: [logNormal(1, 0.03)],
        condition: ([scale = 1]) => ({ scale }),
      },
      ...alike(
        RESISTORS.filter((ohm) => ohm !== resistorOhm).map((ohm) => ({
          parameters: [],
          condition: () => ({ scale: ohm / resistorOhm }),
        })),
        0.5,
      ),
    ];
  }

  private limits(): Variant[] {
    const { outputLow, outputHigh } = this.of.range;
    const span = outputHigh - outputLow;
    const at = (share: number): number => outputLow + share * span;
    const [upper, lower] = span > 0 ? (['most', 'least'] as const) : (['least', 'most'] as const);
    return [
      {
        weight: 0.75,
        name: 'high',
        parameters: [between(at(0.2), at(1))],
        condition: ([value = 0]) => ({ [upper]: value }),
      },
      {
        weight: 0.25,
        name: 'low',
        parameters: [between(at(0), at(0.8))],
        condition: ([value = 0]) => ({ [lower]: value }),
      },
    ];
  }

  private references(): Variant[] {
    const { readings } = this.of;
    // A signal was read by the same meter at both ends of what lies between.
    if (readings.length === 0 || this.unit === null) return [];
    const size = Math.max(0.006, this.limit);
    return [
      {
        weight: 0.6,
        name: 'gain',
        parameters: [normal(0, size)],
        condition: ([referenceGain = 0]) => ({ referenceGain }),
      },
      {
        weight: 0.4,
        name: 'offset',
        parameters: [normal(0, size * this.span)],
        condition: ([referenceOffset = 0]) => ({ referenceOffset }),
      },
    ];
  }

  private outputZeroes(): Variant[] {
    return alone({
      parameters: [normal(0, this.drift('zeroPercent'))],
      condition: ([outputZero = 0]) => ({ outputZero }),
    });
  }

  private outputGains(): Variant[] {
    const parameters = [this.gains()];
    return alike([
      { parameters, condition: ([outputGain = 0]) => ({ outputGain }) },
      // Of the whole signal, live zero and all.
      { parameters, condition: ([gain = 0]) => ({ scale: 1 + gain }) },
    ]);
  }

  private doubled(): Variant[] {
    const own = transferOf(this.of.range);
    // Where the display takes one of them, it reads right.
    return alike(
      [null, [own]].map((displayTransfers) => ({
        parameters: [],
        condition: () => ({ transfers: [own, { kind: 'square-root' as const }], displayTransfers }),
      })),
    );
  }

  private neighbours(): Variant[] {
    const { neighbours = [] } = this.of;
    return alike(
      neighbours.map(({ name, range }) => ({
        name,
        parameters: [],
        condition: () => ({ lrv: range.lrv, urv: range.urv, transfers: [transferOf(range)] }),
      })),
    );
  }

  private rubbing(): Variant[] {
    return alike(
      [true, false].map((isFreeAtFirst) => ({
        parameters: [logNormal(Math.max(this.limit, 0.004) * this.span, 0.7)],
        condition: ([friction = 0]: readonly number[]) => ({ friction, isFreeAtFirst }),
      })),
    );
  }

  private bends(): Variant[] {
    const parameters = [normal(0, 2.5 * this.limit)];
    return alike([
      { name: 'bow', parameters, condition: ([bow = 0]) => ({ bow }) },
      { name: 'wave', parameters, condition: ([wave = 0]) => ({ wave }) },
    ]);
  }

  /** Nothing where it cannot be in this case. */
  readonly variants: Readonly<Record<Suspicion, () => readonly Variant[]>> = {
    nothing: () => alone({ parameters: [], condition: () => ({}) }),
    zero: () => alone({ parameters: [this.zeroes()], condition: ([sensorZero = 0]) => ({ sensorZero }) }),
    gain: () => this.gainVariants(),
    'zero and gain': () =>
      alone({
        parameters: [this.zeroes(), this.gains()],
        condition: ([sensorZero = 0, sensorGain = 0]) => ({ sensorZero, sensorGain }),
      }),
    // Without the digital value an output stage is off as a sensor is.
    'output zero': () => (this.knowsDigital ? this.outputZeroes() : []),
    'output gain': () => (this.knowsDigital ? this.outputGains() : []),
    'water reference': () => (this.unit === null ? [] : this.unitVariants(waterUnits(this.unit))),
    unit: () => (this.unit === null ? [] : this.unitVariants(otherUnits(this.unit))),
    range: () => this.rangeVariants(),
    'neighbouring range': () => this.neighbours(),
    'root missing': () =>
      this.isRoot ? alone({ parameters: [], condition: () => ({ transfers: [LINEAR] }) }) : [],
    'root doubled': () => (this.isRoot ? this.doubled() : []),
    'root misplaced': () => this.misplaced(),
    reversed: () =>
      alike([
        { parameters: [], condition: () => ({ isReversed: true }) },
        { parameters: [], condition: () => ({ lrv: this.of.range.urv, urv: this.of.range.lrv }) },
      ]),
    'absolute or gauge': () => this.airVariants(),
    'sides exchanged': () =>
      this.of.pressureKind === 'differential'
        ? alone({ parameters: [], condition: () => ({ inputGain: -1 }) })
        : [],
    head: () =>
      this.unit === null
        ? []
        : alone({
            parameters: [normal(0, headOfMetre(this.unit))],
            condition: ([inputOffset = 0]) => ({ inputOffset }),
          }),
    resistor: () => this.resistors(),
    saturated: () => this.limits(),
    stuck: () => {
      const { outputLow, outputHigh } = this.of.range;
      const span = outputHigh - outputLow;
      return alone({
        parameters: [between(outputLow - 0.06 * span, outputHigh + 0.12 * span)],
        condition: ([stuck = 0]) => ({ stuck }),
      });
    },
    leak: () => (this.unit === null ? [] : this.leaks()),
    'not settled': () => this.settling(),
    friction: () => this.rubbing(),
    bent: () => this.bends(),
    scatter: () =>
      alone({
        parameters: [logNormal(Math.max(200 * this.limit, 0.5), 0.7)],
        condition: ([scatter = 0]) => ({ scatter }),
      }),
    'display scale': () => this.displayVariants(),
    reference: () => this.references(),
  };
}

/** All that can be behind the readings of a case, each with its variants. */
export function suspicionsOf(
  suspected: Suspected,
): readonly { readonly suspicion: Suspicion; readonly variants: readonly Variant[] }[] {
  const suspecting = new Suspecting(suspected);
  return SUSPICIONS.flatMap((suspicion) => {
    const variants = suspecting.variants[suspicion]();
    return variants.length === 0 ? [] : [{ suspicion, variants }];
  });
}
