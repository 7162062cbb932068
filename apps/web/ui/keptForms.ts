/** What is typed into forms and not sent yet, kept in the browser so that a reload loses nothing. */

const PREFIX = 'barys.form.';
/** What nobody came back for is dropped. */
const KEPT_DAYS = 7;

export interface KeptForm {
  readonly at: number;
  /** Texts by the field's name; of boxes and choices, those that are ticked. */
  readonly texts: Readonly<Record<string, string>>;
  readonly ticked: Readonly<Record<string, readonly string[]>>;
}

/** @param name of the form with what it is about; null keeps nothing */
export const keyOf = (name: string | null): string | null => (name === null ? null : PREFIX + name);

export function drop(key: string | null): void {
  try {
    if (key !== null) localStorage.removeItem(key);
  } catch {
    // Forbidden, and then nothing was kept.
  }
}

/** Lets go of all forms of one name, and of those whose names begin with it as a word. */
export function dropAllOf(name: string): void {
  try {
    for (const key of Object.keys(localStorage))
      if (key === PREFIX + name || key.startsWith(`${PREFIX}${name} `)) localStorage.removeItem(key);
  } catch {
    // Forbidden, and then nothing was kept.
  }
}

const isText = (value: unknown): boolean => typeof value === 'string';
const isTextList = (value: unknown): boolean => Array.isArray(value) && value.every(isText);

/** By hand, since every page loads this and a schema would be the heaviest part of many. */
function isKept(value: unknown): value is KeptForm {
  if (typeof value !== 'object' || value === null) return false;
  const { at, texts, ticked } = value as Record<string, unknown>;
  const isRecordOf = (record: unknown, is: (one: unknown) => boolean): boolean =>
    typeof record === 'object' && record !== null && Object.values(record).every(is);
  return typeof at === 'number' && isRecordOf(texts, isText) && isRecordOf(ticked, isTextList);
}

/** What is kept under a key; null where there is nothing, or nothing that can be read any more. */
export function keptAt(key: string): KeptForm | null {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(key) ?? 'null');
    return isKept(kept) ? kept : null;
  } catch {
    return null;
  }
}

/** A browser that keeps nothing is no reason not to work; what is typed is then only on the page. */
export function keepAt(key: string, form: KeptForm): void {
  try {
    localStorage.setItem(key, JSON.stringify(form));
  } catch {
    // Full, or forbidden.
  }
}

export function prune(): void {
  for (const key of Object.keys(localStorage).filter((one) => one.startsWith(PREFIX))) {
    const kept = keptAt(key);
    if (kept === null || Date.now() - kept.at > KEPT_DAYS * 24 * 3600 * 1000) localStorage.removeItem(key);
  }
}
