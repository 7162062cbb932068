/** The working of the uncertainty of one reading, and of the decision that rests on it. */
import {
  atInstrument,
  workErrorUncertainty,
  workGuardBand,
  Working,
  workMethodSix,
  type JudgedReading,
  type RangeUnits,
  type Step,
} from '@barys/core';
import { driftDay, sourcesOf, standardAt, type JudgedBy } from './evaluation';
import { betweenUnits, workExpandedAt } from './reference-accuracy';
import { unitOf } from './reference-fit';

type Instrument = JudgedBy['pressureReference'];

/** Of one standard or meter, in its own unit and then in the instrument's; ends in `symbol`. */
function stepsOf(
  instrument: Instrument,
  value: number,
  today: string,
  into: { readonly unit: string; readonly label: string; readonly symbol: string },
): readonly Step[] {
  const [to, from] = betweenUnits(into.unit, instrument);
  const { label, symbol } = into;
  const work = new Working(workExpandedAt(instrument, to(value), { today }, unitOf(instrument)));
  work.step({
    what: 'Expanded uncertainty in the unit of the instrument',
    symbol,
    formula: 'U_ref * q',
    given: { q: { value: Math.abs(from(1)), unit: `${label} per ${unitOf(instrument)}` } },
    unit: label,
    source: 'the factor between the two units',
  });
  return work.steps.map((step) => ({ ...step, what: `${instrument.tag}: ${step.what}` }));
}

/**
 * How the uncertainty of a judged reading came about, and its guard band where the rule has one. Empty where the run
 * keeps nothing to make it from.
 * @param day ISO date on which the reading was taken
 */
export function workUncertainty(
  madeWith: JudgedBy,
  judged: JudgedReading,
  units: RangeUnits,
  day?: string,
): readonly Step[] {
  const { configuration, decisionRule, meter } = madeWith;
  const takenOn = driftDay(madeWith, day);
  const point = madeWith.points.find(
    ({ cycle, direction, nominalPercent }) =>
      cycle === judged.cycle && direction === judged.direction && nominalPercent === judged.nominalPercent,
  );
  if (judged.uncertainty === undefined || point === undefined) return [];
  const { applied, output, limit, uncertainty } = judged;
  const limits = { lower: -limit, upper: limit };
  return [
    ...stepsOf(standardAt(madeWith, point), atInstrument(applied, -madeWith.head), takenOn, {
      unit: configuration.inputUnit,
      label: units.input,
      symbol: 'U_std',
    }),
    ...(meter === null
      ? []
      : stepsOf(meter, output, takenOn, {
          unit: configuration.outputUnit,
          label: units.output,
          symbol: 'U_met',
        })),
    ...workErrorUncertainty(configuration, applied, sourcesOf(madeWith, point, applied, output, day), units)
      .working,
    ...(decisionRule.kind === 'guard-band'
      ? workGuardBand(limits, uncertainty, decisionRule.r, units.output)
      : decisionRule.kind === 'method-6'
        ? workMethodSix(limits, uncertainty, units.output)
        : []),
  ];
}
