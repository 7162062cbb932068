/** What instruments of a bench say at a moment, in the terms of a run. */
import { acceptedOutput } from '@barys/core/run';
import { expectedOutput, outputSpan } from '@barys/core/signal';
import { convert, isUnit, quantityOf } from '@barys/core/units';
import type { ShownBench, ShownValue } from '@barys/store/benches';
import { appliedAt, limitsOf, outputAt } from '@barys/store/evaluation';
import type { MadeWith } from '@barys/store/runs';
import type { SeenAutomatic } from './seen';

/** What is said at one channel now, in a unit; null where nothing is. */
function valueIn(
  values: readonly ShownValue[],
  device: string | null,
  channel: string,
  unit: string,
): number | null {
  const found = values.find((one) => one.device === device && one.channel === channel);
  if (found?.value == null) return null;
  if (found.unit === unit) return found.value;
  // What is of another quantity says nothing of this one.
  const isSame = isUnit(found.unit) && isUnit(unit) && quantityOf(found.unit) === quantityOf(unit);
  return isSame ? convert(found.value, found.unit, unit) : null;
}

export interface Live {
  /** In the input unit, the output unit, the input unit. */
  readonly reference: number | null;
  readonly output: number | null;
  readonly digital: number | null;
}

export function liveAt(
  { configuration }: MadeWith,
  automatic: Pick<SeenAutomatic, 'bench' | 'reference' | 'output' | 'digital'>,
  benches: readonly ShownBench[],
): Live {
  const values = benches.find(({ id }) => id === automatic.bench.id)?.values ?? [];
  return {
    reference: valueIn(values, automatic.reference, 'pressure', configuration.inputUnit),
    output: valueIn(values, automatic.output, 'current', configuration.outputUnit),
    digital: valueIn(values, automatic.digital, 'digital value', configuration.inputUnit),
  };
}

export interface LiveError {
  /** Per cent of the output span. */
  readonly percent: number;
  /** What is accepted there, in the output unit. */
  readonly lowest: number;
  readonly highest: number;
  readonly isAccepted: boolean;
}

/** The error that a reading would have now, with all corrections of the run; null where one of the two is not there. */
export function errorNow(
  madeWith: MadeWith,
  point: MadeWith['points'][number],
  { reference, output }: Live,
): LiveError | null {
  if (reference === null || output === null) return null;
  const { configuration } = madeWith;
  const applied = appliedAt(madeWith, point, reference);
  const put = outputAt(madeWith, output);
  const { lowest, highest } = acceptedOutput(configuration, limitsOf(madeWith.tolerance), applied);
  return {
    percent: ((put - expectedOutput(configuration, applied)) / Math.abs(outputSpan(configuration))) * 100,
    lowest,
    highest,
    isAccepted: put >= lowest && put <= highest,
  };
}
