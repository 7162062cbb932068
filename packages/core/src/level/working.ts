/** How the range of a level comes about, step by step. */
import { Working, type Worked } from '../working';
import { balanceOf, type LevelMeasurement } from './arrangement';

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
