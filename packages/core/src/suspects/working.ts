/** How the probability of the likeliest suspicion comes about. */
import { Working, type Given, type Step } from '../working';
import { frequencyOf } from './hypotheses';
import type { Suspect, Weighed } from './suspects';
import { SUSPICION_NAMES } from './words';

const EVIDENCE =
  'evidence with parameters integrated over what is usual of them (Jeffreys 1939; Kass and Raftery 1995; Laplace’s method), from memory';
const BAYES = 'Bayes’ theorem';
/** Rivals that are shown one by one; the others come as one sum. */
const SHOWN = 3;
const NOTATION = '\\ln \\int p(d \\mid \\theta, H)\\, p(\\theta \\mid H)\\, \\mathrm{d}\\theta';

const plain = (value: number): Given => ({ value, unit: '' });

/** The steps to the probability of the likeliest, beside those that come next. */
export function workWeighing({ suspects }: Weighed): readonly Step[] {
  const work = new Working();
  const shown = suspects.slice(0, SHOWN);
  const [first] = shown;
  if (first === undefined) return [];
  const most = first.logEvidence;
  const taken = (what: string, symbol: string, value: number, notation: string) =>
    work.step({
      what,
      symbol,
      formula: 'v',
      given: { v: plain(value) },
      unit: '',
      notation,
      source: EVIDENCE,
    });
  shown.forEach(({ suspicion, logEvidence }, i) =>
    taken(
      `${SUSPICION_NAMES[suspicion]}: how well it explains the readings`,
      `L_${i + 1}`,
      logEvidence,
      NOTATION,
    ),
  );
  const weight = ({ suspicion, logEvidence }: Suspect): number =>
    frequencyOf(suspicion) * Math.exp(logEvidence - most);
  taken(
    'All others, as weights beside the first',
    'W',
    Math.max(0, weight(first) / first.probability - shown.reduce((sum, one) => sum + weight(one), 0)),
    '\\sum f\\, e^{L - L_1}',
  );
  work.step({
    what: 'Probability of the first, each as often beforehand as f says',
    symbol: 'p',
    formula: `f_1 / (${shown.map((_one, i) => `f_${i + 1} * exp(L_${i + 1} - L_1)`).join(' + ')} + W)`,
    given: Object.fromEntries(shown.map(({ suspicion }, i) => [`f_${i + 1}`, plain(frequencyOf(suspicion))])),
    unit: '',
    source: BAYES,
  });
  return work.steps;
}
