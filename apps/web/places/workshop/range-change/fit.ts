/** Whether tolerance and references of an instrument still fit in another range: at every point of its procedure. */
import { convertPressure, type PressureUnit } from '@barys/core/units';
import { accuracyOfBody, toleranceOf, type Instrument, type Reference } from '@barys/store/registers';
import { appliedPoints, limitsOf, rankReferences, ratiosAt } from '@barys/store/runs';
import { acceptedOutput } from '@barys/core/run';

export interface RangeFit {
  readonly tolerancePercent: number;
  /** Of the body in the new range, per cent of span; null where it is not known. */
  readonly accuracyPercent: number | null;
  /** The reference that serves best, and why it does not fit, if so; null where none measures such a pressure. */
  readonly best: { readonly tag: string; readonly unfit: string | null } | null;
  readonly leastRatio: number;
  readonly points: readonly {
    readonly applied: number;
    /** Half the accepted band, in the output unit. */
    readonly limit: number;
    /** Of the best reference there; null where it cannot be wrong, or does not reach. */
    readonly ratio: number | null;
  }[];
}

/** @param today ISO date */
export function fitOfRange(
  instrument: Instrument,
  range: { readonly lrv: number; readonly urv: number; readonly inputUnit: PressureUnit },
  references: readonly Reference[],
  today: string,
): RangeFit {
  const { body, procedure } = instrument;
  const changed: Instrument = { ...instrument, configuration: { ...instrument.configuration, ...range } };
  const tolerance = toleranceOf(changed);
  const [low, high] = [range.lrv, range.urv].map((value) =>
    convertPressure(value, range.inputUnit, body.unit),
  );
  const [best] = rankReferences(references, changed, 'input', { today });
  return {
    tolerancePercent: tolerance.percentOfSpan,
    accuracyPercent: accuracyOfBody(body, Math.abs((high ?? NaN) - (low ?? NaN))),
    best: best === undefined ? null : { tag: best.reference.tag, unfit: best.unfit },
    leastRatio: procedure.content.leastRatio,
    points: appliedPoints(changed).map((applied) => {
      const { lowest, highest } = acceptedOutput(changed.configuration, limitsOf(tolerance), applied);
      return {
        applied,
        limit: (highest - lowest) / 2,
        ratio:
          best === undefined ? null : ratiosAt(best.reference, changed, 'input', applied, { today }).ratio,
      };
    }),
  };
}
