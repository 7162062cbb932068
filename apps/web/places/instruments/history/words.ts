/** What is known of a history, in words. */
import { dateOfDay, type Anomaly } from '@barys/core/drift';
import type { AdviceReason, IntervalAdvice } from '@barys/core/interval';
import { formatFixed, formatPlain, formatSigned } from '@barys/core/text';
import type { NamedDifference } from '@barys/store/intervals';
import { showDate } from '@/server/dates';

const SMALLEST = 1e-6;

/** A probability in words: with the digits that tell it from none and from certain. */
export function chanceWords(probability: number): string {
  if (probability < SMALLEST) return 'less than one in a million';
  if (probability < 0.001) return `1 in ${Number((1 / probability).toPrecision(1)).toLocaleString('en')}`;
  return `${formatPlain(Number((100 * probability).toPrecision(2)))} %`;
}

/** A part that is never shown as all or nothing where it is not. */
export function partWords(part: number): string {
  const percent = 100 * part;
  if (percent > 99.9 && percent < 100) return 'over 99.9\u00a0%';
  if (percent < 0.1 && percent > 0) return 'under 0.1\u00a0%';
  return `${formatFixed(percent, percent >= 90 || percent < 1 ? 1 : 0)}\u00a0%`;
}

export const months = (count: number): string => (count === 1 ? '1 month' : `${formatPlain(count)} months`);

const REASON: {
  readonly [C in AdviceReason['code']]: (reason: Extract<AdviceReason, { code: C }>) => string;
} = {
  cap: (reason) => `Its criticality allows at most ${months(reason.months)}.`,
  'drift-short': (reason) =>
    `At ${formatPlain(reason.at)} % of span it would be found inside with ${partWords(reason.inside)} only; the works asks for ${partWords(reason.target)}.`,
  'family-short': (reason) =>
    `Of its family ${partWords(reason.observed)} were found inside; the works asks for ${partWords(reason.target)}. So few by chance: ${chanceWords(reason.chance)}.`,
  'drift-allows': (reason) =>
    `By its own drift it would still be found inside with ${partWords(reason.inside)} after ${months(reason.months)}.`,
  'drift-holds': (reason) =>
    `By its own drift it is found inside with ${partWords(reason.inside)} at the end; the works asks for ${partWords(reason.target)}.`,
  'family-allows': (reason) =>
    `Its family is shown, with 95 % confidence, to meet the target for ${months(Math.floor(reason.months))}.`,
  'family-holds': (reason) =>
    reason.months >= 1
      ? `Its family is shown, with 95 % confidence, to meet the target for ${months(Math.floor(reason.months))} only: not enough to go longer, and no more out than chance explains.`
      : 'Its family has too few calibrations to show more, and no more out than chance explains.',
  'own-out': (reason) =>
    `It was itself found outside ${reason.out === 1 ? 'once' : `${reason.out} times`} in ${reason.calibrations} calibrations.`,
  scatter: () =>
    'Its scatter alone reaches the limit: no interval is short enough. Look for friction, leaks, the place, or the way it is read.',
  'near-limit': () =>
    'It stands so near its limit that no interval is short enough: adjust it at the next visit, then ask again.',
  'few-calibrations': (reason) =>
    `Its own drift is not known: ${reason.count === 1 ? '1 calibration' : `${reason.count} calibrations`} in this range (since its last step), and ${reason.least} are the least that say anything.`,
  'few-of-family': (reason) =>
    `Its family has ${reason.count === 1 ? '1 calibration' : `${reason.count} calibrations`} with a known time before them; below ${reason.least} they say nothing.`,
};

export const reasonWords = (reason: AdviceReason): string =>
  (REASON[reason.code] as (reason: AdviceReason) => string)(reason);

/** What is advised, in a few words. */
export function adviceWords({
  kind,
  months: advised,
  now,
}: Pick<IntervalAdvice, 'kind' | 'months' | 'now'>): string {
  switch (kind) {
    case 'shorter':
      return `${months(now.months)}, advised ${formatPlain(advised)}`;
    case 'longer':
      return `${months(now.months)}, advised ${formatPlain(advised)}`;
    case 'keep':
      return `${months(now.months)}, to be kept`;
    case 'look':
      return `${months(now.months)}: look at the instrument first`;
    case 'none':
      return `${months(now.months)}: too little is known to advise`;
  }
}

const percent = (value: number): string => `${formatSigned(value, Math.abs(value) < 0.01 ? 3 : 2)} %`;

/** What is worth a look, with its evidence. */
export function anomalyWords(anomaly: Anomaly): string {
  switch (anomaly.kind) {
    case 'step':
      return `A step of ${percent(anomaly.size)} of span beyond its own drift, found ${showDate(dateOfDay(anomaly.day))}${
        anomaly.standards === null
          ? ''
          : `, when ${anomaly.standards[1]} took over from ${anomaly.standards[0]}: the step may be that of the reference`
      }. By chance: ${chanceWords(anomaly.probability)}.`;
    case 'hysteresis':
      return `Its hysteresis grows by ${percent(anomaly.perYear)} of span a year, from ${formatFixed(anomaly.first, 2)} to ${formatFixed(anomaly.last, 2)} %. By chance: ${chanceWords(anomaly.probability)}. No adjustment cures it: look for wear and friction.`;
    case 'reference-rate':
      return `Its drift changed when ${anomaly.after} took over from ${anomaly.before} (${showDate(dateOfDay(anomaly.day))}): ${percent(anomaly.rateBefore)} of span a year before, ${percent(anomaly.rateAfter)} since. By chance: ${chanceWords(anomaly.probability)}.`;
  }
}

/** A reference or a person whose calibrations differ. */
export const differenceWords = ({
  name,
  of,
  mean,
  count,
  others,
  isEither,
  probability,
}: NamedDifference): string =>
  `${of === 'reference' ? `With ${name}` : `Where ${name} reads,`} errors come out ${formatFixed(Math.abs(mean) * 100, 0)} % of the limit ${mean > 0 ? 'higher' : 'lower'} than with ${others.join(', ')}, seen in ${count} changes between them. By chance: ${chanceWords(probability)}.${isEither ? ' Which of the two is off cannot be told: neither was compared with a third.' : ''}`;
