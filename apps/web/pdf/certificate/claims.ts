/** What a certificate may claim of its measurements, and by which rule it judged. */
import type { DecisionRule } from '@barys/core/run';
import { formatPlain } from '@barys/core/text';
import type { MadeWith } from '@barys/store/runs';

type Standard = MadeWith['pressureReference'];

/** Why traceability is not claimed, in words; null where it is. */
export function whyNotTraceable(standards: readonly Standard[], takenOn: string): string | null {
  const reasons = standards.flatMap(({ tag, certificate, dueOn, uncertaintyPercentOfRange, results }) => {
    if (certificate === '' || dueOn === null) return [`${tag} has no certificate`];
    if (takenOn !== '' && dueOn < takenOn) return [`the certificate of ${tag} had run out`];
    return uncertaintyPercentOfRange === null && results.length === 0
      ? [`the certificate of ${tag} states no uncertainty`]
      : [];
  });
  return reasons.length === 0 ? null : reasons.join('; ');
}

/** The standards that a run was measured with, each once. */
export const standardsOf = ({ pressureReference, secondReference, meter }: MadeWith): readonly Standard[] =>
  [pressureReference, secondReference, meter].filter((one) => one !== null);

/** The decision rule as a sentence of the certificate (ISO/IEC 17025:2017, 7.8.6, from memory). */
export function ruleInWords(rule: DecisionRule): string {
  switch (rule.kind) {
    case 'simple':
      return 'Decision rule: simple acceptance. An error on the limit is inside; the uncertainty is stated and not part of the verdict.';
    case 'guard-band':
      return `Decision rule: guard band of ${formatPlain(rule.r)} times the expanded uncertainty kept free inside the limit; ${
        rule.isUndecidedAllowed
          ? 'an error whose uncertainty reaches over the limit either way is undecided.'
          : 'an error inside the band is outside.'
      }`;
    case 'method-6':
      return 'Decision rule: guard band after method 6 of the handbook to ANSI/NCSL Z540.3, so that at most 2 % are wrongly accepted.';
  }
}
