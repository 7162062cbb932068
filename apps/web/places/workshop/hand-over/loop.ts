/** The loop of an instrument: the texts of the tool's fields, and the chain that they come to. */
import type { NewLoop } from '@barys/store/registers';
import { textsOf } from '@/server/texts';
import { itemsOfText, LOOP_FIELDS, loopOf, type LoopFields } from '../loop/fields';

/** What the tool has about a visit and not about the loop. */
const OF_THE_VISIT: ReadonlySet<string> = new Set(['tag', 'why', 'applied', 'meter']);

/**
 * @param given texts of the fields of the tool
 * @throws ZodError where fields are missing, CoreError where an item is no item
 */
export function readLoop(given: unknown): { [K in keyof NewLoop]: unknown } {
  const texts = textsOf<LoopFields>(LOOP_FIELDS).parse(given);
  const typed = itemsOfText(texts.items);
  const items = loopOf(typed).map((item, place) => ({
    ...item,
    inputUnit: typed[place]?.inUnit ?? '',
    outputUnit: typed[place]?.outUnit ?? '',
  }));
  return {
    fields: Object.fromEntries(Object.entries(texts).filter(([name]) => !OF_THE_VISIT.has(name))),
    content: { items, isFlow: texts.isFlow === 'yes', judgedBy: texts.judgedBy },
    reason: texts.why,
  };
}
