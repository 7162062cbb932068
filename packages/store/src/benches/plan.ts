/** What an automatic run of a bench has to do, from the run's own copy of how it is made. Free of PostgreSQL. */
import { OVERSHOOT_PERCENT, PATIENCE_S, STALE_S, USUAL_APPROACH, type Plan } from '@barys/core/automatic';
import { atInstrument } from '@barys/core/corrections';
import { inputSpan, outputSpan } from '@barys/core/signal';
import { decimalsForResolution } from '@barys/core/text';
import { convert, isPressureUnit, isUnit } from '@barys/core/units';
import { isTapColumn, tapsOfRun } from '../runs/beside';
import type { MadeWith } from '../runs/copy';

/** Runs of before procedures said how a reading settles. */
const USUAL_SETTLE = { waitS: 10, holdS: 5, bandPercent: 0.1 };

/** Why a run cannot go by itself; null where it can. */
export function whyNotAutomatic({ configuration, meter, secondReference, columns }: MadeWith): string | null {
  if (meter === null || configuration.outputUnit !== 'mA')
    return 'Its output is not a current that a meter reads.';
  if (secondReference !== null) return 'It changes its reference between points.';
  // Taps of a loop are read by what is chosen for each at the bench.
  const typed = columns.filter((column) => column !== 'digital' && !isTapColumn(column));
  return typed.length > 0 ? 'Something is read by eye at each point.' : null;
}

/** As finely as the references resolve it, in the units of the run. */
export function decimalsOf({ configuration, pressureReference, meter }: MadeWith): {
  readonly input: number;
  readonly output: number;
} {
  const { unit, resolution } = pressureReference;
  const { inputUnit } = configuration;
  const fine =
    isPressureUnit(unit) && isPressureUnit(inputUnit) ? convert(resolution, unit, inputUnit) : resolution;
  return { input: decimalsForResolution(fine), output: decimalsForResolution(meter?.resolution ?? 0.001) };
}

/** @param isByHand whether a person works the pressure */
export function planOf(madeWith: MadeWith, isByHand = false): Plan {
  const { configuration, points, pressureReference, settle, head } = madeWith;
  const { inputUnit, outputUnit } = configuration;
  const { ratePercentPerS, onLoss } = madeWith.approach ?? USUAL_APPROACH;
  const inUnit = (value: number): number =>
    isPressureUnit(pressureReference.unit) && isUnit(inputUnit)
      ? convert(value, pressureReference.unit, inputUnit)
      : value;
  return {
    stops: points.map(({ position, direction, nominalApplied }) => ({
      position,
      direction,
      // What the reference has to show, where the instrument sees more.
      applied: atInstrument(nominalApplied, -head),
    })),
    unit: inputUnit,
    inputSpan: Math.abs(inputSpan(configuration)),
    outputSpan: Math.abs(outputSpan(configuration)),
    taps: tapsOfRun(madeWith).map(({ column, low, high }) => ({ key: column, span: Math.abs(high - low) })),
    settle: settle ?? USUAL_SETTLE,
    approach: { ratePercentPerS, overshootPercent: OVERSHOOT_PERCENT },
    onLoss,
    isByHand,
    reference: { low: inUnit(pressureReference.rangeLow), high: inUnit(pressureReference.rangeHigh) },
    isCurrent: outputUnit === 'mA' && configuration.signal === 'mA-4-20',
    patienceS: PATIENCE_S,
    staleS: STALE_S,
  };
}
