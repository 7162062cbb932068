/** What stands otherwise than in service, in words. */
import { lackInWords, type Arrangement } from '@barys/core/hookup';
import type { OutOfService } from '@barys/store/jobs';

/** What it is, in a word or two. */
export const STANDING_WORD: Record<OutOfService['kind'], string> = {
  'goes by itself': 'Run goes by itself',
  'test pressure': 'Test gear connected',
  'half turned': 'Valves half turned',
  isolated: 'Isolated',
  'leg lost': 'Wet leg lost',
  manual: 'Controller in manual',
  bypass: 'Bypassed',
};

/** Those that can hurt somebody who comes near first. */
const ORDER: readonly OutOfService['kind'][] = [
  'half turned',
  'goes by itself',
  'test pressure',
  'bypass',
  'manual',
  'leg lost',
  'isolated',
];

export const byDanger = (a: OutOfService, b: OutOfService): number =>
  ORDER.indexOf(a.kind) - ORDER.indexOf(b.kind) || a.at.valueOf() - b.at.valueOf();

/** What there is to know of it. */
export function standingWords(hookUp: Arrangement, standing: OutOfService): string {
  switch (standing.kind) {
    case 'goes by itself':
      return `at ${standing.bench}: pressure comes and goes without anybody's hand`;
    case 'test pressure':
      return `${standing.standard} is on the line: pressure may stand on it`;
    case 'half turned':
      return standing.lacks.map((lack) => lackInWords(hookUp, lack)).join(' ');
    case 'isolated':
      return 'shut off from its process and vented';
    case 'leg lost':
      return 'to be filled again before it is put back';
    case 'manual':
    case 'bypass':
      return standing.words;
  }
}
