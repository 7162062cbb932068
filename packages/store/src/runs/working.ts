/** The workings of one reading: what the standards really saw, the uncertainty, and the decision that rests on it. */
import { workGuardBand, workMethodSix } from '@barys/core/conformity';
import { atInstrument } from '@barys/core/corrections';
import { workErrorUncertainty, type JudgedReading } from '@barys/core/run';
import type { RangeUnits } from '@barys/core/signal';
import { Working, type Step } from '@barys/core/working';
import { driftDay, sourcesOf, standardAt, type JudgedBy } from './evaluation';
import { betweenUnits } from './accuracy';
import { workCorrectionAt, workExpandedAt } from './accuracy-working';
import { unitOf } from './fit';

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

/** What a standard or meter really saw, in the instrument's unit, from what it read; ends in `symbol`. */
function stepsSeen(
  standard: Instrument,
  read: number,
  plus: { readonly head: number },
  into: { readonly unit: string; readonly label: string; readonly symbol: string; readonly what: string },
): readonly Step[] {
  const isCorrected = standard.results.length > 0;
  if (!isCorrected && plus.head === 0) return [];
  const [to, from] = betweenUnits(into.unit, standard);
  const { label, symbol, what } = into;
  const work = new Working(isCorrected ? workCorrectionAt(standard, to(read), unitOf(standard)) : []);
  work.step({
    what,
    symbol,
    formula: ['read', ...(isCorrected ? ['c_cert * q'] : []), ...(plus.head === 0 ? [] : ['head'])].join(
      ' + ',
    ),
    given: {
      read: { value: read, unit: label },
      q: { value: from(1), unit: `${label} per ${unitOf(standard)}` },
      head: { value: plus.head, unit: label },
    },
    unit: label,
    source: 'the factor between the two units, and hydrostatics',
  });
  return work.steps.map((step) => ({ ...step, what: `${standard.tag}: ${step.what}` }));
}

/** How the value applied and the output came about from what the standards read; empty where they are as read. */
export function workSeen(
  madeWith: JudgedBy,
  {
    position,
    applied,
    output,
  }: { readonly position: number; readonly applied: number; readonly output: number },
  units: RangeUnits,
): readonly Step[] {
  const { configuration, meter, head } = madeWith;
  const point = madeWith.points.find((one) => one.position === position);
  if (point === undefined) return [];
  return [
    ...stepsSeen(
      standardAt(madeWith, point),
      applied,
      { head },
      {
        unit: configuration.inputUnit,
        label: units.input,
        symbol: 'x',
        what: 'What the instrument saw',
      },
    ),
    ...(meter === null
      ? []
      : stepsSeen(
          meter,
          output,
          { head: 0 },
          {
            unit: configuration.outputUnit,
            label: units.output,
            symbol: 'm',
            what: 'The output with the correction of the meter',
          },
        )),
  ];
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
