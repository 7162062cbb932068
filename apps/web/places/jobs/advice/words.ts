/** How advice is said in a record. */
import { actWords, type AdjustableBody } from '@barys/core/adjust';
import { formatFixed, formatPlain } from '@barys/core/text';
import { isPressureUnit, PRESSURE_UNITS } from '@barys/core/units';
import type { Adjustment, KeptAdvice, MadeOfIt } from '@barys/store/jobs';

const MADE_OF_IT: Record<MadeOfIt, string> = {
  taken: 'taken as advised',
  changed: 'another act was chosen',
  ignored: 'the advice was not followed',
};

const lower = (text: string): string => text.charAt(0).toLowerCase() + text.slice(1);

/** `Advised: zero trim; taken as advised.` */
export function adviceInWords(
  { content: { lead, act }, madeOfIt }: KeptAdvice,
  body: AdjustableBody,
): string {
  const chosen = act === null || act === lead ? '' : `, ${lower(actWords(act, body))}`;
  return `Advised: ${lower(actWords(lead, body))}; ${MADE_OF_IT[madeOfIt]}${chosen}.`;
}

const outputUnit = (unit: string): string => (isPressureUnit(unit) ? PRESSURE_UNITS[unit].label : unit);

/** A reading before or after as it was read: the output, or a deviation at a null meter. */
export const readInWords = (text: string, { nullAt, nullUnit, outputUnit: unit }: Adjustment): string =>
  nullAt === null
    ? `${text} ${outputUnit(unit)}`
    : `${text} ${nullUnit === '% of span' ? '% of span' : outputUnit(unit)} from ${nullAt} %`;

/** What was advised for a setting, and whether it was followed; empty where nothing was. */
export const settingInWords = ({ advised, outputUnit: unit }: Adjustment): string =>
  advised === null
    ? ''
    : `Advised: ${advised.screw} to ${formatPlain(Number(formatFixed(advised.setTo, 4).replace('−', '-')))} ${outputUnit(unit)}, ${advised.isFollowed ? 'followed' : 'set otherwise'}.`;
