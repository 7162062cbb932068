/** What an entry of the trail says besides who, what and when. */

const LONGEST = 400;

const isAnswer = (value: unknown): value is { question: string; answer: string } =>
  typeof value === 'object' && value !== null && 'question' in value && 'answer' in value;

function valueInWords(value: unknown): string {
  if (value === null || value === undefined) return 'none';
  if (typeof value === 'string') return value;
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'number') return String(value);
  if (isAnswer(value)) return `${value.question} ${value.answer}`;
  if (Array.isArray(value)) return value.length === 0 ? 'none' : value.map(valueInWords).join('; ');
  return Object.entries(value)
    .map(([name, part]) => `${nameInWords(name)} ${valueInWords(part)}`)
    .join(', ');
}

/** `reference reason` of `referenceReason`. */
const nameInWords = (name: string): string =>
  name.replace(/([a-z])([A-Z])/g, (_, a: string, b: string) => `${a} ${b.toLowerCase()}`);

const isChange = (value: unknown): value is { before: unknown; after: unknown } =>
  typeof value === 'object' && value !== null && 'before' in value && 'after' in value;

/** `owner: Crew → Night crew; walk: 10`, cut where it would run on for pages. */
export function detailInWords(detail: Record<string, unknown>): string {
  const text = Object.entries(detail)
    .filter(([, value]) => value !== '' && !(Array.isArray(value) && value.length === 0))
    .map(([name, value]) =>
      isChange(value)
        ? `${nameInWords(name)}: ${valueInWords(value.before)} → ${valueInWords(value.after)}`
        : `${nameInWords(name)}: ${valueInWords(value)}`,
    )
    .join('; ');
  return text.length > LONGEST ? `${text.slice(0, LONGEST)} …` : text;
}
