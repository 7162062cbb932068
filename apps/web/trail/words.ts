/** What an entry of the trail says besides who, what and when. */

const LONGEST = 400;

const valueInWords = (value: unknown): string =>
  typeof value === 'string' ? value : value === null || value === undefined ? 'none' : JSON.stringify(value);

const isChange = (value: unknown): value is { before: unknown; after: unknown } =>
  typeof value === 'object' && value !== null && 'before' in value && 'after' in value;

/** `owner: Crew → Night crew; walk: 10`, cut where it would run on for pages. */
export function detailInWords(detail: Record<string, unknown>): string {
  const text = Object.entries(detail)
    .filter(([, value]) => value !== '' && !(Array.isArray(value) && value.length === 0))
    .map(([name, value]) =>
      isChange(value)
        ? `${name}: ${valueInWords(value.before)} → ${valueInWords(value.after)}`
        : `${name}: ${valueInWords(value)}`,
    )
    .join('; ');
  return text.length > LONGEST ? `${text.slice(0, LONGEST)} …` : text;
}
