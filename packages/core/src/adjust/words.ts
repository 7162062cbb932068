/** Advice in words: what the readings say, what to do, what no adjustment cures. */
import { formatFixed, formatSigned } from '../text';
import type { Act, AdjustableBody } from './acts';
import { isZeroTrimmed, trimsOf } from './acts';
import { worstOf, type ActOutlook, type Advice, type Incurable } from './advice';
import type { Estimate, Portrait } from './portrait';

/** An act in words, for the body at hand. */
export function actWords(act: Act, body: AdjustableBody): string {
  switch (act) {
    case 'none':
      return 'Nothing';
    case 'zero':
      return isZeroTrimmed(body) ? 'Zero trim' : 'Zero screw';
    case 'zero and span':
      if (trimsOf(body).includes('range wheel')) return 'Zero screw and range wheel';
      return isZeroTrimmed(body) ? 'Zero and full scale' : 'Zero and span screws';
    case 'sensor trim':
      return 'Lower and upper sensor trim';
    case 'output trim':
      return 'Output trim at 4 and 20 mA';
    case 'zero and output trim':
      return 'Zero trim and output trim';
    case 'sensor and output trim':
      return 'Sensor trim, then output trim';
    case 'mid-scale':
      return 'Zero, full scale and mid-scale';
    case 're-range':
      return 'Another range';
    case 'linkage':
      return 'Linkage, then zero and span';
    case 'repair':
      return 'Repair or replace';
  }
}

/** What to do, in one sentence. */
export function doWords(act: Act, body: AdjustableBody): string {
  switch (act) {
    case 'none':
      return 'Leave it as found: not adjusting keeps the drift history clean.';
    case 'zero':
      return isZeroTrimmed(body)
        ? 'Zero trim, at true zero, as it is mounted: vented or equalised.'
        : 'Turn the zero screw only, at the low end of the range.';
    case 'zero and span':
      return 'Set zero and span: they pull on each other, so the next setting is worked out from each pass.';
    case 'sensor trim':
      return 'Trim the sensor at its lower and its upper point, against the standard.';
    case 'output trim':
      return 'Trim the output at 4 and 20 mA against the meter; the sensor is right.';
    case 'zero and output trim':
      return 'Zero trim at true zero, then trim the output at 4 and 20 mA.';
    case 'sensor and output trim':
      return 'Trim the sensor first, then the output: both stages are off.';
    case 'mid-scale':
      return 'Zero, full scale, then mid-scale, which takes out the bow.';
    case 're-range':
      return 'Set the range that it should have. Nothing is trimmed before that.';
    case 'linkage':
      return 'Set the linkage straight, then zero and span.';
    case 'repair':
      return 'Repair or replace it: no adjustment that it has brings it inside.';
  }
}

/** Decimals that show two digits of a size, at most three: a thousandth of a per cent of span is the end of what counts. */
const decimalsOf = (size: number): number =>
  size === 0 ? 3 : Math.min(3, Math.max(0, 1 - Math.floor(Math.log10(Math.abs(size)))));
const percent = (value: number): string => `${formatFixed(value, decimalsOf(value))} %`;
const DECIMALS = 3;
const doubt = (uncertainty: number | null): string =>
  uncertainty === null ? '' : ` ± ${formatFixed(uncertainty, DECIMALS)}`;
const withDoubt = ({ value, uncertainty }: Estimate): string =>
  `${formatSigned(value, DECIMALS)} %${doubt(uncertainty)}`;

/** The parts of the errors, each with its uncertainty; all of span. */
export function portraitWords({ zero, gain, bow, hysteresis, scatter }: Portrait): readonly string[] {
  return [
    zero === null ? null : `Zero ${withDoubt(zero)}`,
    gain === null ? null : `gain ${withDoubt(gain)}`,
    bow === null ? null : `bow ${withDoubt(bow)}`,
    hysteresis === null
      ? null
      : `hysteresis ${formatFixed(hysteresis.value, DECIMALS)} %${doubt(hysteresis.uncertainty)}`,
    scatter === null ? null : `scatter ${formatFixed(scatter.deviation, DECIMALS)} %`,
  ].filter((one) => one !== null);
}

/** Whether an estimate is more than what is uncertain of it. */
const isReal = (estimate: Estimate | null): estimate is Estimate =>
  estimate !== null && Math.abs(estimate.value) > (estimate.uncertainty ?? 0);

/** What the readings say, in a sentence. */
export function headline({ portrait, found, stages }: Advice): string {
  if (stages !== null && (stages.isSensorOutside || stages.isOutputOutside)) {
    if (stages.isSensorOutside && stages.isOutputOutside)
      return 'Sensor and output stage are both past the adjust limit, each by itself.';
    return stages.isSensorOutside
      ? 'The digital value is past the adjust limit and the output follows it: the sensor is off.'
      : 'The digital value is right and the current is not: the output stage is off.';
  }
  if (found.verdict === 'within') return 'All readings lie inside the adjust limit.';
  const { zero, gain, bow } = portrait;
  if (zero === null || gain === null) return 'There are too few points to say what kind of error it is.';
  const direction = zero.value > 0 ? 'high' : 'low';
  if (isReal(bow) && Math.abs(bow.value) > Math.abs(zero.value) && Math.abs(bow.value) > Math.abs(gain.value))
    return 'The curve bows between its ends.';
  if (!isReal(gain) || Math.abs(gain.value) < Math.abs(zero.value) / 4)
    return `Everywhere by nearly the same amount: the whole line stands ${percent(Math.abs(zero.value))} of span ${direction}.`;
  if (!isReal(zero) || Math.abs(zero.value) < Math.abs(gain.value) / 4)
    return `Right at the low end and ${percent(Math.abs(gain.value))} of span ${gain.value > 0 ? 'high' : 'low'} at the top: the gain is off.`;
  return `Zero is ${percent(Math.abs(zero.value))} of span ${direction} and the gain ${percent(Math.abs(gain.value))} ${gain.value > 0 ? 'high' : 'low'}.`;
}

/** What no adjustment takes away, with the reason. */
export function incurableWords({ what, size, allowed, isDecisive }: Incurable): string {
  const end = isDecisive ? ' It alone keeps the instrument past the adjust limit.' : '';
  switch (what) {
    case 'hysteresis':
      return `Hysteresis of ${percent(size)} is over half the limit (${percent(allowed)}): no screw and no trim takes it away. Look for friction, a worn pivot, an over-ranged element.${end}`;
    case 'bow':
      return `The curve bows by ${percent(size)}, over half the limit (${percent(allowed)}): zero and span leave half of it on each side; only a linkage or a mid-scale point changes it.${end}`;
    case 'scatter':
      return `Readings scatter by ± ${percent(size)}, over half the limit (${percent(allowed)}): no adjustment makes them stand. Look for a leak, noise, a loose connection, damping set too low.${end}`;
    case 'friction':
      return 'Tapping moves the pointer further than the class allows: no adjustment cures friction. Repair or replace.';
    case 'best':
      return `Whatever zero and span do, ${percent(size)} of span stays at some reading; the adjust limit there is ${percent(allowed)}.`;
  }
}

/** Why an act is not the one, or what it is worth beside the one that leads; empty where there is nothing to say. */
export function remarkOf(outlook: ActOutlook, advice: Advice): string {
  const { act, hides, suffices, points } = outlook;
  if (hides) return 'the current comes right and the digital value stays wrong: it would hide the fault';
  if (act === 're-range') return 'moves what 4 and 20 mA stand for and cures no sensor';
  if (act === 'repair') return 'its outcome cannot be told beforehand';
  if (act === 'output trim' && advice.stages === null)
    return 'not told apart from the sensor: the digital value was not read';
  if (act === 'none' || advice.lead === null || advice.lead === act || points === null) return '';
  if (suffices === 'no') return 'not enough';
  const lead = advice.acts.find((one) => one.act === advice.lead);
  const [worst, leads] = [worstOf(outlook), lead === undefined ? null : worstOf(lead)];
  if (worst === null || leads === null) return '';
  const gain = leads - worst;
  return gain >= 0.0005 ? `gains ${percent(gain)} of span` : 'gains nothing more';
}
