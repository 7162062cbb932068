/** The list of a set-up as CSV. */
import {
  SETTINGS,
  settingWords,
  type Setup,
  type SetupComparison,
  type WantedSetup,
} from '@barys/core/setup';
import Papa from 'papaparse';

/** @param read null where what is typed cannot be read */
export function csvOfSetup(
  wanted: WantedSetup,
  read: Setup | null,
  compared: SetupComparison | null,
): string {
  const plain = (text: string) => text.replaceAll('\u2212', '-');
  return Papa.unparse({
    fields: ['Setting', 'Has to be', 'Read', 'What it does', 'Matters'],
    data: SETTINGS.map(([key, name]) => {
      const found = compared?.differences.find((one) => one.key === key);
      return [
        name,
        settingWords(wanted, key),
        read === null ? '' : settingWords({ ...read, inputUnit: read.inputUnit ?? wanted.inputUnit }, key),
        found?.effect ?? '',
        found?.matters ?? (compared?.same.includes(key) ? 'as it has to be' : ''),
      ].map(plain);
    }),
  });
}
