import { describe, expect, it } from 'vitest';
import { expectConsistent, expectEndsIn } from '../../test/working';
import { expectAll, givenNumber, loadCases, type Case } from '../../test/fixtures';
import {
  drumDensities,
  drumIndication,
  drumLevel,
  drumRange,
  glassReading,
  hotCheck,
  workHotCheck,
  type DrumTaps,
} from './index';

const cases = (kind: RegExp) =>
  loadCases<Case>('boiler-drum.json', kind).map((one): [string, Case] => [one.id, one]);
const BAR = 1e5;
const GRAVITY = 9.80665;

const tapsOf = (given: Case['given'], height: string): DrumTaps => ({
  tapsM: givenNumber(given, height),
  zeroM: given['low water level above lower tap']?.value ?? 0,
  fullM: given['high water level above lower tap']?.value ?? givenNumber(given, height),
  dropM: given['transmitter below lower tap by']?.value ?? 0,
  highSide: 'lower tap',
  gravityMPerS2: givenNumber(given, 'gravity'),
});

describe('boiler drums, against figures computed outside Barys', () => {
  it.each(cases(/^drum wet-leg DP and range$/))('%s', (_id, { given, expect: wanted }) => {
    const taps = tapsOf(given, 'distance between taps (wet leg height)');
    const gauge = (given['barometric pressure']?.value ?? 0) * BAR;
    const state = {
      pressurePa: givenNumber(given, 'drum pressure') * BAR + gauge,
      legTemperatureC: givenNumber(given, 'mean wet leg temperature'),
    };
    const { lrvPa, urvPa, spanPa, waterKgPerM3, steamKgPerM3, legKgPerM3 } = drumRange(taps, state);
    const other = drumRange({ ...taps, highSide: 'leg' }, state);
    expectAll(wanted, {
      'absolute drum pressure': state.pressurePa / BAR,
      'saturated water density': waterKgPerM3,
      'saturated steam density': steamKgPerM3,
      'wet leg density': legKgPerM3,
      'DP magnitude at low water level': -lrvPa / 1000,
      'DP magnitude at high water level': -urvPa / 1000,
      'LRV with high side at lower tap': lrvPa / 1000,
      'URV with high side at lower tap': urvPa / 1000,
      'LRV with high side on the wet leg': other.lrvPa / 1000,
      'URV with high side on the wet leg': other.urvPa / 1000,
      'span (absolute)': spanPa / 1000,
      span: spanPa / 1000,
    });
  });

  it.each(cases(/^uncompensated level indication$/))('%s', (_id, { given, expect: wanted }) => {
    const of = (name: string) => givenNumber(given, name);
    const taps = tapsOf(given, 'distance between taps = level span');
    const ranged = {
      pressurePa: of('range calculated for drum pressure') * BAR,
      legTemperatureC: of('range calculated for wet leg temperature'),
    };
    const cold =
      'water in drum' in given
        ? { waterTemperatureC: of('water in drum'), gasKgPerM3: of('gas above the water') }
        : undefined;
    const now = {
      pressurePa: of('drum pressure in service') * BAR,
      legTemperatureC: of('wet leg temperature in service'),
      cold,
    };
    const got: Record<string, number> = {};
    for (let n = 1; `true level ${n}` in given; n += 1) {
      const shown = drumIndication(taps, ranged, now, of(`true level ${n}`));
      got[`DP magnitude ${n}`] = -shown.differentialPa / 1000;
      got[`indicated level ${n}`] = shown.indicatedM;
      got[`level error ${n}`] = shown.errorM;
      got[`level error in percent of span ${n}`] = shown.errorPercentOfSpan;
      got[`output ${n}`] = 4 + (16 * (shown.indicatedM - taps.zeroM)) / (taps.fullM - taps.zeroM);
    }
    expectAll(wanted, got);
  });

  it.each(cases(/^density-compensated level from measured DP$/))('%s', (_id, { given, expect: wanted }) => {
    const of = (name: string) => givenNumber(given, name);
    const state = {
      pressurePa: of('drum pressure') * BAR,
      legTemperatureC: of('mean wet leg temperature'),
    };
    const tapsM = of('distance between taps');
    const level = drumLevel(
      tapsM,
      of('gravity'),
      state,
      of('measured DP magnitude (wet leg minus lower tap)') * 1000,
    );
    expectAll(wanted, {
      'level above lower tap': level,
      'level in percent of tap distance': (level / tapsM) * 100,
    });
  });

  it.each(cases(/^gauge glass with cooler water$/))('%s', (_id, { given, expect: wanted }) => {
    const of = (name: string) => givenNumber(given, name);
    const state = { pressurePa: of('drum pressure') * BAR, legTemperatureC: 20 };
    const glass = { bottomM: 0, temperatureC: of('mean water temperature in the gauge glass') };
    const got: Record<string, number> = {};
    for (let n = 1; `true drum level ${n}` in given; n += 1) {
      const { readingM, lowByM, glassKgPerM3 } = glassReading(glass, state, of(`true drum level ${n}`));
      got['gauge glass water density'] = glassKgPerM3;
      got[`gauge glass reading ${n}`] = readingM;
      got[`glass reads low by ${n}`] = lowByM;
    }
    expectAll(wanted, got);
  });

  it.each(cases(/^drum level display with centre zero$/))('%s', (_id, { given, expect: wanted }) => {
    const of = (name: string) => givenNumber(given, name);
    const tapsM = of('distance between taps');
    const { lrvPa, urvPa } = drumRange(tapsOf(given, 'distance between taps'), {
      pressurePa: of('drum pressure') * BAR,
      legTemperatureC: of('mean wet leg temperature'),
    });
    const got: Record<string, number> = {};
    for (const n of [1, 2, 3]) {
      const share = (of(`output ${n}`) - 4) / 16;
      got[`display ${n}`] = (share - 0.5) * tapsM * 1000;
      got[`DP magnitude ${n}`] = -(lrvPa + share * (urvPa - lrvPa)) / 1000;
    }
    expectAll(wanted, got);
  });
});

describe('the hot check', () => {
  const taps: DrumTaps = {
    tapsM: 0.6,
    zeroM: 0,
    fullM: 0.6,
    dropM: 0,
    highSide: 'lower tap',
    gravityMPerS2: GRAVITY,
  };
  const hot = { pressurePa: 60 * BAR, legTemperatureC: 60 };
  const glass = { bottomM: 0, temperatureC: 200 };

  it('explains all of a difference that comes from the densities alone', () => {
    const { readingM } = glassReading(glass, hot, 0.35);
    // Ranged for the pressure that the drum has: the transmitter is right, the glass low.
    const right = hotCheck(taps, hot, hot, { glass, glassM: readingM, shownM: 0.35 });
    expect(right.trueM).toBeCloseTo(0.35, 12);
    expect(right.expectedM).toBeCloseTo(0.35, 12);
    expect(right.unexplainedM).toBeCloseTo(0, 12);
    expect(right.explainedM).toBeCloseTo(0.35 - readingM, 12);
  });

  it('leaves what the densities do not explain, glass 50 % and transmitter 47 % as an example', () => {
    const ranged = { pressurePa: 40 * BAR, legTemperatureC: 60 };
    const found = hotCheck(taps, ranged, hot, { glass, glassM: 0.3, shownM: 0.282 });
    expect(found.explainedM + found.unexplainedM).toBeCloseTo(0.282 - 0.3, 12);
    expect(found.expectedM).toBeCloseTo(drumIndication(taps, ranged, hot, found.trueM).indicatedM, 12);
  });

  it('shows the steps to all of it, in per cent of the range', () => {
    const ranged = { pressurePa: 40 * BAR, legTemperatureC: 60 };
    for (const highSide of ['lower tap', 'leg'] as const) {
      const drum: DrumTaps = { ...taps, zeroM: 0.1, fullM: 0.5, highSide };
      const reading = { glass: { bottomM: 0.05, temperatureC: 150 }, glassM: 0.22, shownM: 0.282 };
      const found = hotCheck(drum, ranged, hot, reading);
      const { value, working } = workHotCheck(drum, ranged, hot, reading);
      expectConsistent(working);
      const percent = (metres: number) => (metres / 0.4) * 100;
      expect(value).toBeCloseTo(percent(found.unexplainedM), 9);
      expectEndsIn(working, 'L_true', found.trueM);
      expectEndsIn(working, 'P_expected', percent(found.expectedM - 0.1));
      expectEndsIn(working, 'P_explained', percent(found.explainedM));
      expectEndsIn(working, 'b_true', percent(found.trueM - 0.282));
      expectEndsIn(working, 'b_glass', percent(0.27 - 0.282));
    }
  });

  it('refuses a glass or a leg whose water would boil, and a level below the glass', () => {
    expect(() => glassReading({ bottomM: 0, temperatureC: 280 }, hot, 0.3)).toThrow('boils below');
    expect(() => drumDensities({ pressurePa: BAR, legTemperatureC: 120 })).toThrow(
      expect.objectContaining({ field: 'legTemperatureC' }),
    );
    expect(() => glassReading({ bottomM: 0.1, temperatureC: 20 }, hot, 0.05)).toThrow('must not be negative');
    expect(() => drumLevel(0, GRAVITY, hot, 100)).toThrow('distance between the taps');
  });
});
