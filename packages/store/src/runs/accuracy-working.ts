/** The workings of what a reference's certificate and specification say at a value. */
import { pointsAround } from '@barys/core/run';
import { formatPlain } from '@barys/core/text';
import { workSpecification } from '@barys/core/uncertainty';
import { Working, type Step } from '@barys/core/working';
import type { CertificateResult } from '../registers/reference';
import { specificationAt, statedAt, type Accuracy, type Conditions } from './accuracy';

const CERTIFICATE = 'the certificate of the reference';

const FROM_CERTIFICATE = {
  correction: { what: 'Correction', symbol: 'c_cert' },
  uncertainty: { what: 'Expanded uncertainty of the certificate, k = 2', symbol: 'U_cert' },
} as const;

/** A figure of the certificate at a value, between the two points around it; `c_cert` or `U_cert`. */
function workBetween(
  work: Working,
  { results }: Accuracy,
  value: number,
  unit: string,
  figure: keyof typeof FROM_CERTIFICATE,
): void {
  const [low, high] = pointsAround(results, value);
  const { what, symbol } = FROM_CERTIFICATE[figure];
  const isPoint = low.at === high.at;
  const given = (name: string, point: CertificateResult) => ({
    [`y_${name}`]: { value: point[figure], unit },
    ...(isPoint ? {} : { [`v_${name}`]: { value: point.at, unit } }),
  });
  work.step({
    what: isPoint
      ? `${what}: that of its point at ${formatPlain(low.at)} ${unit}`
      : `${what}: between its points at ${formatPlain(low.at)} and ${formatPlain(high.at)} ${unit}`,
    symbol,
    formula: isPoint ? 'y_1' : 'y_1 + (y_2 - y_1) * (v - v_1) / (v_2 - v_1)',
    given: isPoint ? given('1', low) : { ...given('1', low), ...given('2', high), v: { value, unit } },
    unit,
    source: CERTIFICATE,
  });
}

/** The working of `correctionAt`, in the reference's unit; ends in c_cert, and is empty where there is none. */
export function workCorrectionAt(reference: Accuracy, value: number, unit: string): readonly Step[] {
  const work = new Working();
  if (reference.results.length > 0) workBetween(work, reference, value, unit, 'correction');
  return work.steps;
}

/** The working of `expandedAt`, in the reference's unit; ends in U_ref. */
export function workExpandedAt(
  reference: Accuracy,
  value: number,
  conditions: Conditions,
  unit: string,
): readonly Step[] {
  const { working } = workSpecification(specificationAt(reference, value, conditions), unit);
  const work = new Working(working);
  const isSilent = statedAt(reference, value) === null;
  if (reference.results.length > 0) workBetween(work, reference, value, unit, 'uncertainty');
  else if (!isSilent)
    work.step({
      what: 'Expanded uncertainty of the certificate, k = 2',
      symbol: 'U_cert',
      formula: 'p / 100 * R',
      given: {
        p: { value: reference.uncertaintyPercentOfRange ?? 0, unit: '%' },
        R: { value: reference.rangeHigh - reference.rangeLow, unit },
      },
      unit,
      source: CERTIFICATE,
    });
  work.step({
    what: isSilent
      ? 'Expanded uncertainty of the reference, k = 2: its specification, for want of one on its certificate'
      : 'Expanded uncertainty of the reference, k = 2: certificate and specification',
    symbol: 'U_ref',
    formula: isSilent ? '2 * a / sqrt(3)' : '2 * sqrt((U_cert / 2)^2 + (a / sqrt(3))^2)',
    unit,
    source: '4.3.7 and 5.1.2, JCGM 100:2008, from memory',
  });
  return work.steps;
}
