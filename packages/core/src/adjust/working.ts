/** Show the working of advice: zero and gain from the readings, what the leading act leaves, where the next screw is set. */
import type { SignalRange } from '../signal';
import type { Act } from './acts';
import { Working, type Given, type Step } from '../working';
import type { Advice } from './advice';
import type { ScrewAdvice, ScrewSituation } from './screws';

const PRACTICE = 'Common practice';
const percent = (value: number): Given => ({ value, unit: '%' });

/** How the advice follows from the errors of the run. */
export function workAdvice(range: SignalRange, advice: Advice): readonly Step[] {
  const work = new Working();
  portraitSteps(work, advice.portrait);
  boundSteps(work, advice);
  if (advice.lead !== null && advice.lead !== 'none') outlookSteps(work, range, advice, advice.lead);
  return work.steps;
}

/** How what an act leaves at worst follows from what was read; no steps where it cannot be told. */
export function workOutlook(range: SignalRange, advice: Advice, act: Act): readonly Step[] {
  const work = new Working();
  outlookSteps(work, range, advice, act);
  return work.steps;
}

function outlookSteps(work: Working, range: SignalRange, { found, acts }: Advice, act: Act): void {
  const outlook = acts.find((one) => one.act === act);
  const worst = outlook?.points?.[outlook.worst ?? -1];
  const read = found.readings[outlook?.worst ?? -1];
  if (worst === undefined || read === undefined) return;
  work.step({
    what: `Largest error left, at ${read.nominalPercent} % ${read.direction === 'up' ? 'rising' : 'falling'}: what would be read there less what should be`,
    symbol: 'e_left',
    formula: '100 (y_left - y_ideal) / S',
    given: {
      y_left: { value: worst.output, unit: '' },
      y_ideal: { value: read.expected, unit: '' },
      S: { value: Math.abs(range.outputHigh - range.outputLow), unit: '' },
    },
    unit: '%',
    source: PRACTICE,
  });
  if (worst.spread === null) return;
  const { deviation, variance, factor } = worst.spread;
  work.step({
    what: 'What is uncertain of it: one reading scatters by s; v counts those that are set and the one to come',
    symbol: 'U_left',
    formula: 'k s sqrt(v)',
    given: { k: { value: factor, unit: '' }, s: percent(deviation), v: { value: variance, unit: '' } },
    unit: '%',
    source: 'JCGM 100:2008, 5.1 and G.4, from memory',
  });
}

function portraitSteps(work: Working, { zero, gain, bow, hysteresis, scatter }: Advice['portrait']): void {
  const taken = (what: string, symbol: string, value: number, notation: string) =>
    work.step({
      what,
      symbol,
      formula: 'v',
      given: { v: percent(value) },
      unit: '%',
      notation,
      source: `${PRACTICE}: least squares`,
    });
  if (zero !== null)
    taken('Zero of the line through all readings', 'z', zero.value, '\\bar{e} - b\\,\\bar{s}');
  if (gain !== null)
    taken(
      'Its gain error',
      'b',
      gain.value,
      '\\frac{\\sum (s_i - \\bar{s})(e_i - \\bar{e})}{\\sum (s_i - \\bar{s})^2}',
    );
  if (bow !== null)
    taken(
      'Bow of the middle above the ends',
      'q',
      bow.value,
      '\\frac{\\sum \\tilde{q}_i e_i}{\\sum \\tilde{q}_i^2},\\ q_i = 4 s_i (1 - s_i)',
    );
  if (hysteresis !== null)
    taken(
      'Hysteresis: largest difference of falling and rising',
      'h',
      hysteresis.value,
      '\\max |e_{down} - e_{up}|',
    );
  if (scatter !== null)
    taken(
      scatter.from === 'repeats'
        ? `Scatter of repeated readings, ${scatter.degreesOfFreedom} degrees of freedom`
        : `Scatter about a smooth curve, ${scatter.degreesOfFreedom} degrees of freedom`,
      's_r',
      scatter.deviation,
      '\\sqrt{\\sum r_i^2 / \\nu}',
    );
}

function boundSteps(work: Working, { found, bestByZeroAndSpan, portrait }: Advice): void {
  const errors = found.readings.map(({ errorPercentSpan }) => errorPercentSpan);
  if (errors.length === 0) return;
  work.step({
    what: 'Least that a zero alone can leave: half of what lies between the largest and the smallest error',
    symbol: 'E_zero',
    formula: '(e_max - e_min) / 2',
    given: { e_max: percent(Math.max(...errors)), e_min: percent(Math.min(...errors)) },
    unit: '%',
    source: `${PRACTICE}: geometry`,
  });
  if (portrait.gain !== null)
    work.step({
      what: 'Least that zero and span can leave: the line that leaves the least largest error',
      symbol: 'E_both',
      formula: 'v',
      given: { v: percent(bestByZeroAndSpan) },
      unit: '%',
      notation: '\\min_{a,b}\\ \\max_i |e_i - a - b\\,s_i|',
      source: `${PRACTICE}: geometry`,
    });
}

/** How the next setting follows from the passes so far. */
export function workNextSetting(
  { targets }: ScrewSituation,
  advice: ScrewAdvice,
  unit: string,
): readonly Step[] {
  const work = new Working();
  const { off, spanOnZero, zeroOnSpan, next } = advice;
  const inUnit = (value: number): Given => ({ value, unit });
  const plain = (value: number): Given => ({ value, unit: '' });
  if (next === null) return [];
  work.step({
    what: 'What the span has still to move full scale',
    symbol: 'D',
    formula: '(q e_0 - e_100) / (1 - q r)',
    given: {
      e_0: inUnit(off[0]),
      e_100: inUnit(off[1]),
      r: plain(spanOnZero.value),
      q: plain(zeroOnSpan.value),
    },
    unit,
    source: `${PRACTICE}: two equations for two screws`,
  });
  work.step({
    what: 'What zero has still to move',
    symbol: 'd',
    formula: '-(e_0 + r D)',
    given: { e_0: inUnit(off[0]), r: plain(spanOnZero.value) },
    unit,
    source: `${PRACTICE}: two equations for two screws`,
  });
  const isZero = next.screw === 'zero';
  const isBeyond = next.setTo !== next.willStandAt;
  work.step({
    what: isBeyond
      ? 'Set it here by what the other screw takes back'
      : 'The other screw moves nothing here any more',
    symbol: 'y_set',
    formula: !isBeyond ? 'y_aim' : isZero ? 'y_aim - r D' : 'y_aim - q d',
    given: {
      y_aim: inUnit(targets[isZero ? 0 : 1]),
      r: plain(spanOnZero.value),
      q: plain(zeroOnSpan.value),
    },
    unit,
    source: PRACTICE,
  });
  return work.steps;
}
