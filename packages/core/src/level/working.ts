/** How the range of a level comes about, step by step. */
import { Working, type Worked } from '../working';
import { compressedWaterDensity } from '../steam';
import { balanceOf, type LevelMeasurement } from './arrangement';
import {
  drumDensities,
  drumMeasurement,
  hotCheck,
  type DrumState,
  type DrumTaps,
  type HotReading,
} from './drum';

const SOURCE = 'hydrostatics, common practice';

/**
 * The differential at a level, high side less low side: both sides followed down from the space above the liquid.
 * @param name of the level, such as 0 or 100, in the symbols
 * @returns Pa
 * @throws CoreError with the field that is wrong
 */
export function workDifferential(
  given: LevelMeasurement,
  {
    levelM,
    name,
    what,
    before = [],
  }: {
    readonly levelM: number;
    readonly name: string;
    readonly what: string;
    readonly before?: Worked['working'];
  },
): Worked {
  const balance = balanceOf(given);
  const isClosed = balance.tapsM > 0;
  const work = new Working(before);
  const level = `L_${name}`;
  work.step({
    what: `Down from the space above to the transmitter, by the lower tap, at ${what}`,
    symbol: `p_tap${name}`,
    formula: isClosed
      ? `g * (rho * ${level} + rho_above * (D - ${level}) + rho_line * h)`
      : `g * (rho * ${level} + rho_line * h)${balance.lossPa === 0 ? '' : ' + p_loss'}`,
    given: {
      g: { value: balance.gravity, unit: 'm/s²' },
      rho: { value: balance.liquid, unit: 'kg/m³' },
      [level]: { value: levelM, unit: 'm' },
      rho_above: { value: balance.above, unit: 'kg/m³' },
      D: { value: balance.tapsM, unit: 'm' },
      rho_line: { value: balance.line, unit: 'kg/m³' },
      h: { value: balance.dropM, unit: 'm' },
      p_loss: { value: balance.lossPa, unit: 'Pa' },
    },
    unit: 'Pa',
    source: SOURCE,
  });
  if (isClosed)
    work.step({
      what: 'Down from the space above to the transmitter, by the leg',
      symbol: `p_leg${name}`,
      formula: 'g * rho_leg * (D + h)',
      given: {
        g: { value: balance.gravity, unit: 'm/s²' },
        rho_leg: { value: balance.leg, unit: 'kg/m³' },
        D: { value: balance.tapsM, unit: 'm' },
        h: { value: balance.dropM, unit: 'm' },
      },
      unit: 'Pa',
      source: SOURCE,
    });
  const sides = isClosed ? [`p_tap${name}`, `p_leg${name}`] : [`p_tap${name}`];
  const value = work.step({
    what: `Differential at ${what}, high side less low side`,
    symbol: `dp_${name}`,
    formula: (balance.sign === 1 ? sides : [...sides].reverse()).join(' - '),
    unit: 'Pa',
    source: SOURCE,
  });
  return { value, working: work.steps };
}

/**
 * Lower and upper range value in their steps, Pa; the value is the absolute span.
 * @throws CoreError with the field that is wrong
 */
export function workLevelRange(
  given: LevelMeasurement,
): Worked & { readonly lrvPa: number; readonly urvPa: number } {
  const low = workDifferential(given, { levelM: given.zeroM, name: '0', what: '0 %' });
  const high = workDifferential(given, {
    levelM: given.fullM,
    name: '100',
    what: '100 %',
    before: low.working,
  });
  const work = new Working(high.working);
  const value = work.step({
    what: 'Span',
    symbol: 'dp_span',
    formula: 'abs(dp_100 - dp_0)',
    unit: 'Pa',
    source: SOURCE,
  });
  return { value, working: work.steps, lrvPa: low.value, urvPa: high.value };
}

const IF97 = 'IAPWS-IF97, regions 1 and 2';
const percentOfLevel = (level: string): string => `100 * (${level} - L_0) / (L_100 - L_0)`;

/** The level that the glass stands for, which later steps know as `L_true`. */
function trueLevelSteps(work: Working, now: DrumState, { glass, glassM }: HotReading): void {
  const { waterKgPerM3, steamKgPerM3 } = drumDensities(now);
  const densities = {
    rho_water: { value: waterKgPerM3, unit: 'kg/m³' },
    rho_steam: { value: steamKgPerM3, unit: 'kg/m³' },
    rho_glass: { value: compressedWaterDensity(glass.temperatureC, now.pressurePa), unit: 'kg/m³' },
  };
  work.step({
    what: 'The colder water of the glass shows this share of the height above its lower connection',
    symbol: 'k_glass',
    formula: '(rho_water - rho_steam) / (rho_glass - rho_steam)',
    given: densities,
    unit: '',
    source: `equal heads in glass and drum, common practice; densities: ${IF97}`,
  });
  work.step({
    what: 'The level that the glass stands for, above the lower tap',
    symbol: 'L_true',
    formula: 'b + G / k_glass',
    given: { b: { value: glass.bottomM, unit: 'm' }, G: { value: glassM, unit: 'm' } },
    unit: 'm',
    source: SOURCE,
  });
}

/**
 * The hot check in its steps: what the transmitter has to show at the level of the glass, what the densities explain, and what
 * is left; all in per cent of the range.
 * @returns what is left, %
 * @throws CoreError as `hotCheck`
 */
export function workHotCheck(taps: DrumTaps, ranged: DrumState, now: DrumState, reading: HotReading): Worked {
  const { trueM } = hotCheck(taps, ranged, now, reading);
  const begun = new Working();
  trueLevelSteps(begun, now, reading);
  const range = workLevelRange(drumMeasurement(taps, ranged));
  const differential = workDifferential(drumMeasurement(taps, now), {
    levelM: trueM,
    name: 'now',
    what: 'that level, as the drum is now',
    before: [...begun.steps, ...range.working],
  });
  const work = new Working(differential.working);
  const given = { L_0: { value: taps.zeroM, unit: 'm' }, L_100: { value: taps.fullM, unit: 'm' } };
  const percent = (what: string, symbol: string, formula: string, more = {}) =>
    work.step({ what, symbol, formula, given: { ...given, ...more }, unit: '%', source: SOURCE });
  percent('The true level, per cent of the range', 'P_true', percentOfLevel('L_true'));
  percent('The transmitter has to show', 'P_expected', '100 * (dp_now - dp_0) / (dp_100 - dp_0)');
  percent('The glass shows', 'P_glass', percentOfLevel('(b + G)'), {
    b: { value: reading.glass.bottomM, unit: 'm' },
    G: { value: reading.glassM, unit: 'm' },
  });
  percent('The densities explain', 'P_explained', 'P_expected - P_glass');
  percent('The transmitter shows', 'P_shown', percentOfLevel('S'), {
    S: { value: reading.shownM, unit: 'm' },
  });
  percent('A bias for the true level', 'b_true', 'P_true - P_shown');
  percent('A bias for the glass', 'b_glass', 'P_glass - P_shown');
  const value = percent('Left unexplained', 'P_left', 'P_shown - P_expected');
  return { value, working: work.steps };
}
