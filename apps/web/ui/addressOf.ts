/** A strapping table is the longest of what is typed. */
const LONGEST = 6000;

/** The fields of a form from the page's address, each with its value where the address says nothing. */
export function addressOf<T extends Readonly<Record<string, string>>>(
  usual: T,
  given: Readonly<Record<string, string | string[] | undefined>>,
): T {
  const entries = Object.entries(usual).map(([name, value]) => {
    const text = given[name];
    return [name, typeof text === 'string' && text.length <= LONGEST ? text : value];
  });
  return Object.fromEntries(entries) as T;
}
