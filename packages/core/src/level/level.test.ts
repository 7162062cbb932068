import { describe, expect, it } from 'vitest';
import { expectAll, givenNumber, loadCases, type Case } from '../../test/fixtures';
import { convertPressure } from '../units';
import {
  balanceOf,
  differentialOf,
  fullVolume,
  levelForVolume,
  levelFromDifferential,
  levelIndication,
  levelOfLimit,
  levelRange,
  shiftOfLostLeg,
  volumeAt,
  workLevelRange,
  zeroShiftOf,
  type LevelMeasurement,
  type Vessel,
} from './index';

const cases = (kind: RegExp) =>
  loadCases<Case>('levels.json', kind).map((one): [string, Case] => [one.id, one]);
const GRAVITY = 9.80665;
const WATER = 1000;

/** The first of several names under which a case gives a figure. */
const firstOf =
  (given: Case['given']) =>
  (...names: readonly string[]): number => {
    const name = names.find((one) => one in given);
    if (name === undefined) throw new Error(`the case has none of ${names.join(', ')}`);
    return givenNumber(given, name);
  };

/** A case of the fixture as a measurement; relative densities are to 1000 kg/m³. */
function measurementOf(kind: string, given: Case['given']): LevelMeasurement {
  const of = firstOf(given);
  const text = (given['connection'] as unknown as string | undefined) ?? '';
  const base = {
    zeroM: of(
      'level at 0 percent above lower tap',
      'level at 0 percent above lower seal',
      'level at 0 percent above seal',
      'interface at 0 percent above lower tap',
    ),
    fullM: of(
      'level at 100 percent above lower tap',
      'level at 100 percent above lower seal',
      'level at 100 percent above seal',
      'interface at 100 percent above lower tap',
    ),
    highSide: text.includes('high side to the wet leg') ? ('leg' as const) : ('lower tap' as const),
    gravityMPerS2: givenNumber(given, 'gravity'),
  };
  const drop = () =>
    of('transmitter below lower tap by', 'transmitter below lower seal by', 'transmitter below seal by');
  const liquid = () =>
    of('liquid relative density', 'process liquid relative density', 'process relative density') * WATER;
  const fill = () =>
    of(
      'wet leg fill relative density',
      'capillary fill relative density',
      'reference leg or capillary fill relative density',
    ) * WATER;
  if (kind.startsWith('open tank'))
    return { ...base, arrangement: 'open', liquidKgPerM3: liquid(), dropM: drop() };
  if (kind.startsWith('one remote seal'))
    return { ...base, arrangement: 'one-seal', liquidKgPerM3: liquid(), fillKgPerM3: fill(), dropM: drop() };
  if (kind.startsWith('interface'))
    return {
      ...base,
      arrangement: 'interface',
      liquidKgPerM3: of('lower (heavy) liquid relative density') * WATER,
      aboveKgPerM3: of('upper (light) liquid relative density') * WATER,
      fillKgPerM3: fill(),
      tapsM: of('distance between taps (both always submerged)'),
      dropM: 0,
    };
  if (kind.includes('dry leg'))
    return {
      ...base,
      arrangement: 'dry-leg',
      liquidKgPerM3: liquid(),
      aboveKgPerM3: of('gas density in vessel and dry leg'),
      tapsM: of('distance between taps'),
      dropM: drop(),
    };
  return {
    ...base,
    arrangement: kind.startsWith('two remote') ? 'two-seals' : 'wet-leg',
    liquidKgPerM3: liquid(),
    aboveKgPerM3: of('vapour density'),
    fillKgPerM3: fill(),
    tapsM: of('distance between taps (wet leg full to the upper tap)', 'distance between seals'),
    dropM: drop(),
  };
}

const inKpa = (given: LevelMeasurement) => {
  const { lrvPa, urvPa, spanPa } = levelRange(given);
  return {
    'lower range value (0 percent)': lrvPa / 1000,
    'upper range value (100 percent)': urvPa / 1000,
    'span (absolute)': spanPa / 1000,
  };
};

const OPEN: LevelMeasurement = {
  arrangement: 'open',
  liquidKgPerM3: 1000,
  zeroM: 0,
  fullM: 3,
  dropM: 0,
  highSide: 'lower tap',
  gravityMPerS2: GRAVITY,
};
const WET: LevelMeasurement = {
  ...OPEN,
  arrangement: 'wet-leg',
  liquidKgPerM3: 800,
  aboveKgPerM3: 0,
  fillKgPerM3: 1000,
  fullM: 2.5,
  tapsM: 2.5,
};

describe('ranges of levels, against figures computed outside Barys', () => {
  it.each([
    ...cases(/^open tank, transmitter (at|below) the lower tap$/),
    ...cases(/^closed tank, (dry leg|wet leg|wet leg \(.*\))$/),
    ...cases(/^two remote seals$/),
    ...cases(/^one remote seal, open tank$/),
    ...cases(/^interface between two liquids$/),
  ])('%s', (_id, { kind, given, expect: wanted }) => {
    expectAll(wanted, inKpa(measurementOf(kind, given)));
  });

  it.each(cases(/inches and specific gravity$/))('%s', (_id, { given, expect: wanted }) => {
    const of = firstOf(given);
    const inch = 0.0254;
    const isOpen = 'liquid specific gravity' in given;
    const { lrvPa, urvPa, spanPa } = levelRange({
      arrangement: isOpen ? 'open' : 'wet-leg',
      liquidKgPerM3: of('liquid specific gravity', 'process specific gravity') * WATER,
      ...(isOpen
        ? {}
        : {
            aboveKgPerM3: 0,
            fillKgPerM3: of('fill specific gravity') * WATER,
            tapsM: of('distance between taps') * inch,
          }),
      zeroM: of('level at 0 percent above lower tap', 'level at 0 percent') * inch,
      fullM: of('level at 100 percent above lower tap', 'level at 100 percent') * inch,
      dropM: of('transmitter below lower tap by') * inch,
      highSide: 'lower tap',
      gravityMPerS2: GRAVITY,
    });
    const inches = (pressure: number) => convertPressure(pressure, 'Pa', 'inH2OConventional');
    expectAll(wanted, {
      'lower range value (0 percent)': inches(lrvPa),
      'upper range value (100 percent)': inches(urvPa),
      span: inches(spanPa),
    });
  });

  it.each(cases(/^open tank, transmitter above the tank bottom$/))('%s', (_id, { given, expect: wanted }) => {
    const tap = givenNumber(given, 'transmitter above tank bottom by');
    const fullM = givenNumber(given, 'level at 100 percent above tank bottom') - tap;
    const tank = { ...OPEN, fullM };
    const algebraic = differentialOf(balanceOf(tank), -tap);
    const { urvPa } = levelRange(tank);
    expectAll(wanted, {
      ...inKpa(tank),
      'lowest measurable level above tank bottom': tap,
      'level at 12 mA above tank bottom': tap + levelFromDifferential(tank, urvPa / 2),
      'algebraic LRV if 0 percent were put at the tank bottom': algebraic / 1000,
      'output at the lowest measurable level for that range': 4 + (16 * -algebraic) / (urvPa - algebraic),
    });
    // Below its tap a transmitter sees nothing, so that range is refused.
    expect(() => levelRange({ ...tank, zeroM: -tap })).toThrow('must not be negative');
  });

  it.each(cases(/^bubbler/))('%s', (_id, { given, expect: wanted }) => {
    const of = firstOf(given);
    const end = of('dip tube end above tank bottom');
    expectAll(
      wanted,
      inKpa({
        ...OPEN,
        arrangement: 'bubbler',
        liquidKgPerM3: of('liquid relative density') * WATER,
        zeroM: of('level at 0 percent above tank bottom') - end,
        fullM: of('level at 100 percent above tank bottom') - end,
        purgeLossPa: of('constant purge flow loss in the dip tube line') * 1000,
      }),
    );
  });

  it.each(cases(/^elevated tank on a standpipe$/))('%s', (_id, { given, expect: wanted }) => {
    const of = firstOf(given);
    const tank: LevelMeasurement = {
      ...OPEN,
      arrangement: 'standpipe',
      fullM: of('tank depth (level display 0 to this)'),
      dropM: of('tank bottom above transmitter'),
    };
    const { lrvPa, spanPa } = levelRange(tank);
    const got: Record<string, number> = inKpa(tank);
    for (const n of [1, 2, 3]) {
      const pressure = lrvPa + ((of(`output ${n}`) - 4) / 16) * spanPa;
      got[`pressure ${n}`] = pressure / 1000;
      got[`displayed level ${n} (above tank bottom)`] = levelFromDifferential(tank, pressure);
    }
    expectAll(wanted, got);
  });

  it.each(cases(/^elevated tank on a standpipe, feet and psi$/))('%s', (_id, { given, expect: wanted }) => {
    const of = firstOf(given);
    const foot = 0.3048;
    const tank: LevelMeasurement = {
      ...OPEN,
      arrangement: 'standpipe',
      liquidKgPerM3: of('water density'),
      fullM: of('tank depth') * foot,
      dropM: of('tank bottom above transmitter') * foot,
    };
    const psi = (pressure: number) => convertPressure(pressure, 'Pa', 'psi');
    const { lrvPa, urvPa, spanPa } = levelRange(tank);
    expectAll(wanted, {
      'lower range value (0 percent)': psi(lrvPa),
      'upper range value (100 percent)': psi(urvPa),
      'feet of water per psi': of('tank depth') / psi(spanPa),
    });
  });
});

describe('what a level shows when something is not as it was ranged for', () => {
  it.each(cases(/^indicated level when the density differs$/))('%s', (_id, { given, expect: wanted }) => {
    const of = firstOf(given);
    const { indicatedM, errorM } = levelIndication(
      {
        ...OPEN,
        liquidKgPerM3: of('range calculated for relative density') * WATER,
        zeroM: of('level at 0 percent above lower tap'),
        fullM: of('level at 100 percent above lower tap'),
        dropM: of('transmitter below lower tap by'),
      },
      { liquidKgPerM3: of('relative density in service') * WATER },
      of('true level'),
    );
    expectAll(wanted, { 'indicated level': indicatedM, error: errorM });
  });

  it.each(cases(/^wet leg partly lost$/))('%s', (_id, { given, expect: wanted }) => {
    const of = firstOf(given);
    const shift = shiftOfLostLeg(
      {
        ...WET,
        liquidKgPerM3: of('process relative density') * WATER,
        fillKgPerM3: of('wet leg fill relative density') * WATER,
        fullM: of('distance between taps = level span'),
        tapsM: of('distance between taps = level span'),
      },
      of('wet leg level below the upper tap'),
    );
    expectAll(wanted, {
      'shift of indicated level (positive = reads high)': shift,
      'shift in percent of span': (shift / of('distance between taps = level span')) * 100,
    });
  });

  it.each(cases(/^remote seals, fill density change$/))('%s', (_id, { given, expect: wanted }) => {
    const of = firstOf(given);
    const taps = of('distance between seals');
    const seals: LevelMeasurement = {
      ...WET,
      arrangement: 'two-seals',
      fillKgPerM3: of('capillary fill relative density at set-up') * WATER,
      fullM: taps,
      tapsM: taps,
    };
    const warm = { fillKgPerM3: of('capillary fill relative density in service') * WATER };
    const shift = (levelRange({ ...seals, ...warm }).lrvPa - levelRange(seals).lrvPa) / 1000;
    expectAll(wanted, { 'zero shift': shift, 'zero shift in percent of span': (shift / of('span')) * 100 });
    // The same seen as a level: the error is the same at every level.
    const at = (level: number) => levelIndication(seals, warm, level).errorM;
    expect(at(4)).toBeCloseTo(at(0), 12);
    expect(at(0)).toBeCloseTo((shift * 1000) / (800 * GRAVITY), 12);
  });

  it('a limit of error of the transmitter is a limit of error of the level, and no level of the space above', () => {
    expect(levelOfLimit(OPEN, 0.001 * levelRange(OPEN).spanPa)).toBeCloseTo(0.003, 12);
    expect(levelOfLimit({ ...WET, aboveKgPerM3: 40 }, 760 * GRAVITY * 0.01)).toBeCloseTo(0.01, 12);
  });

  it('both sides of a transmitter exchanged change the sign alone', () => {
    const [one, other] = [levelRange(WET), levelRange({ ...WET, highSide: 'leg' })];
    expect(other).toEqual({ lrvPa: -one.lrvPa, urvPa: -one.urvPa, spanPa: one.spanPa });
    expect(levelIndication({ ...WET, highSide: 'leg' }, { fillKgPerM3: 980 }, 1).errorM).toBeCloseTo(
      levelIndication(WET, { fillKgPerM3: 980 }, 1).errorM,
      12,
    );
  });
});

describe('common practice, in feet of water', () => {
  const feet = (range: LevelMeasurement) => {
    const { lrvPa, urvPa } = levelRange(range);
    return [lrvPa, urvPa].map((pressure) => convertPressure(pressure, 'Pa', 'inH2OConventional') / 12);
  };
  const tank = { ...OPEN, fullM: 20 * 0.3048 };
  it.each<[string, Partial<LevelMeasurement>, readonly [number, number]]>([
    ['20 ft of water', {}, [0, 20]],
    ['a tap one foot up sees 19 ft', { fullM: 19 * 0.3048 }, [0, 19]],
    ['a specific gravity of 0.9', { liquidKgPerM3: 900 }, [0, 18]],
    ['both', { liquidKgPerM3: 900, fullM: 19 * 0.3048 }, [0, 17.1]],
  ])('%s', (_name, change, wanted) => {
    feet({ ...tank, ...change }).forEach((got, end) => expect(got).toBeCloseTo(wanted[end] ?? NaN, 9));
  });
});

describe('what cannot be', () => {
  it.each<[string, Partial<LevelMeasurement>, string]>([
    ['a negative density', { liquidKgPerM3: -1 }, 'liquidKgPerM3'],
    ['levels the wrong way round', { zeroM: 2, fullM: 1 }, 'fullM'],
    ['no span', { fullM: 0 }, 'fullM'],
    ['a zero below the tap', { zeroM: -0.1 }, 'zeroM'],
    ['taps the wrong way round', { tapsM: -2 }, 'tapsM'],
    ['no distance between the taps', { tapsM: undefined }, 'tapsM'],
    ['a level above the upper tap', { fullM: 2.6 }, 'fullM'],
    ['a gas denser than the liquid', { aboveKgPerM3: 800 }, 'aboveKgPerM3'],
    ['a leg of unknown fill', { fillKgPerM3: undefined }, 'fillKgPerM3'],
    ['a leg filled with nothing', { fillKgPerM3: 0 }, 'fillKgPerM3'],
    ['gravity of another planet', { gravityMPerS2: 3.7 }, 'gravityMPerS2'],
    ['a figure that is none', { dropM: NaN }, 'dropM'],
  ])('%s is refused at its field', (_name, change, field) => {
    expect(() => levelRange({ ...WET, ...change })).toThrow(expect.objectContaining({ field }));
  });

  it('a leg that has lost more than it holds, and one that is not there', () => {
    expect(() => shiftOfLostLeg(WET, 2.6)).toThrow('must be from 0 to 2.5 m');
    expect(() => shiftOfLostLeg(OPEN, 0.1)).toThrow('no filled leg');
  });
});

it.each<[string, LevelMeasurement]>([
  ['an open tank', { ...OPEN, dropM: 0.8, lineKgPerM3: 990 }],
  ['a bubbler', { ...OPEN, arrangement: 'bubbler', purgeLossPa: 200 }],
  ['a wet leg', { ...WET, aboveKgPerM3: 35, dropM: 0.75 }],
  ['a wet leg on the high side', { ...WET, highSide: 'leg' }],
  ['an interface', { ...WET, arrangement: 'interface', aboveKgPerM3: 700, dropM: -1 }],
])('the working of %s comes to the same range', (_name, given) => {
  const [worked, range] = [workLevelRange(given), levelRange(given)];
  expect(worked.lrvPa).toBeCloseTo(range.lrvPa, 9);
  expect(worked.urvPa).toBeCloseTo(range.urvPa, 9);
  expect(worked.value).toBeCloseTo(range.spanPa, 9);
});

it('says where the zero of a range lies', () => {
  expect(zeroShiftOf(levelRange(OPEN))).toBe('none');
  expect(zeroShiftOf(levelRange({ ...OPEN, dropM: 1 }))).toBe('suppressed');
  expect(zeroShiftOf(levelRange(WET))).toBe('elevated');
  expect(zeroShiftOf(levelRange({ ...WET, highSide: 'leg' }))).toBe('reversed');
});

describe('volumes, against figures computed outside Barys', () => {
  const vesselOf = (kind: string, given: Case['given']): Vessel => {
    const diameterM = givenNumber(given, 'inside diameter');
    if (kind.includes('sphere')) return { shape: 'sphere', diameterM };
    if (kind.includes('vertical'))
      return { shape: 'vertical cylinder', diameterM, heightM: givenNumber(given, 'full height') };
    return { shape: 'horizontal cylinder', diameterM, lengthM: givenNumber(given, 'length'), headDepthM: 0 };
  };

  it.each(cases(/^volume, /))('%s', (_id, { kind, given, expect: wanted }) => {
    const vessel = vesselOf(kind, given);
    const got: Record<string, number> = {};
    for (const [name, { value }] of Object.entries(given)) {
      if (!/^level/.test(name)) continue;
      const volume = volumeAt(vessel, value);
      const number = name.replace('level', '');
      got[`volume${number}`] = volume;
      got[`percent of full volume${number}`] = (volume / fullVolume(vessel)) * 100;
      expect(levelForVolume(vessel, volume)).toBeCloseTo(value, 7);
    }
    expectAll(wanted, got);
  });

  it.each(cases(/^level for a given volume/))('%s', (_id, { kind, given, expect: wanted }) => {
    const vessel = vesselOf(kind, given);
    const volume = (givenNumber(given, 'volume') / 100) * fullVolume(vessel);
    expectAll(wanted, { level: levelForVolume(vessel, volume) });
  });

  it('heads of half a sphere are a sphere, those of an ellipsoid in proportion', () => {
    const tank = (headDepthM: number): Vessel => ({
      shape: 'horizontal cylinder',
      diameterM: 2,
      lengthM: 4,
      headDepthM,
    });
    for (const level of [0, 0.3, 1, 1.7, 2]) {
      const heads = volumeAt(tank(1), level) - volumeAt(tank(0), level);
      expect(heads).toBeCloseTo(volumeAt({ shape: 'sphere', diameterM: 2 }, level), 12);
      expect(volumeAt(tank(0.5), level) - volumeAt(tank(0), level)).toBeCloseTo(heads / 2, 12);
    }
  });

  it('a cone either way up holds a third of its cylinder', () => {
    const third = ((Math.PI / 4) * 9 * 2) / 3;
    expect(fullVolume({ shape: 'cone', bottomDiameterM: 0, topDiameterM: 3, heightM: 2 })).toBeCloseTo(
      third,
      12,
    );
    expect(fullVolume({ shape: 'cone', bottomDiameterM: 3, topDiameterM: 0, heightM: 2 })).toBeCloseTo(
      third,
      12,
    );
    expect(volumeAt({ shape: 'cone', bottomDiameterM: 0, topDiameterM: 3, heightM: 2 }, 1)).toBeCloseTo(
      third / 8,
      12,
    );
  });

  it('a strapping table is read between its lines, and refused where it does not rise', () => {
    const table = [
      { levelM: 0.2, volumeM3: 1 },
      { levelM: 1, volumeM3: 5 },
      { levelM: 2, volumeM3: 12 },
    ];
    const vessel: Vessel = { shape: 'strapping table', table };
    expect([0.2, 0.6, 1, 1.5, 2].map((level) => volumeAt(vessel, level))).toEqual([1, 3, 5, 8.5, 12]);
    expect(levelForVolume(vessel, 3)).toBeCloseTo(0.6, 12);
    expect(() => volumeAt(vessel, 0.1)).toThrow('must be from 0.2 to 2 m');
    expect(() => volumeAt({ shape: 'strapping table', table: [...table].reverse() }, 1)).toThrow('must rise');
    expect(() => volumeAt({ shape: 'strapping table', table: table.slice(0, 1) }, 1)).toThrow('At least 2');
  });

  it('a vessel that is empty or full is that to the last digit', () => {
    const sphere: Vessel = { shape: 'sphere', diameterM: 10 };
    expect(levelForVolume(sphere, 0)).toBe(0);
    expect(levelForVolume(sphere, fullVolume(sphere))).toBe(10);
    expect(() => levelForVolume(sphere, 600)).toThrow('The volume must be from 0 to 523.59');
    expect(() => volumeAt(sphere, 10.1)).toThrow('must be from 0 to 10 m');
  });
});
