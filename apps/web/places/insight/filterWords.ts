import type { CalibrationQuery } from '@barys/store/insight';
import { SUSPICION_NAMES } from '@barys/core/suspects';
import { ADJUSTMENT_WORD } from '@/places/jobs/words';
import { showDate } from '@/server/dates';
import { VERDICT_WORD } from '@/ui/verdict';

/** What the list is filtered by, in words. */
export function filterWords(query: CalibrationQuery): string {
  const words = (name: string, all: Readonly<Record<string, string>>) => all[name] ?? name;
  return [
    query.kind === '' ? '' : query.kind.replace('-', ' '),
    query.verdict === '' ? '' : VERDICT_WORD[query.verdict],
    query.model,
    query.standard === '' ? '' : `with ${query.standard}`,
    query.adjusted === '' ? '' : `adjusted: ${words(query.adjusted, ADJUSTMENT_WORD).toLowerCase()}`,
    query.cause === '' ? '' : `found behind it: ${words(query.cause, SUSPICION_NAMES).toLowerCase()}`,
    query.from === '' ? '' : `from ${showDate(query.from)}`,
    query.to === '' ? '' : `to ${showDate(query.to)}`,
  ]
    .filter(Boolean)
    .join(', ');
}
