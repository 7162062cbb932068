/** The fonts of what is printed as PDF, from the packages that ship them. */
import { Font } from '@react-pdf/renderer';
import { createRequire } from 'node:module';
import { join } from 'node:path';

export const WORDS = 'Barys words';
export const FIGURES = 'Barys figures';

const require = createRequire(join(process.cwd(), 'package.json'));
const file = (family: 'next' | 'mono', weight: number): string =>
  require.resolve(
    `@fontsource/atkinson-hyperlegible-${family}/files/atkinson-hyperlegible-${family}-latin-${weight}-normal.woff`,
  );

let isRegistered = false;

export function registerFonts(): void {
  if (isRegistered) return;
  for (const [family, name] of [
    [WORDS, 'next'],
    [FIGURES, 'mono'],
  ] as const)
    Font.register({
      family,
      fonts: [400, 700].map((fontWeight) => ({ src: file(name, fontWeight), fontWeight })),
    });
  // Words are never broken with a hyphen: a tag or a serial must be read as it is.
  Font.registerHyphenationCallback((word) => [word]);
  isRegistered = true;
}
