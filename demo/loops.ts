/** Loops of the demo: what the control room and the panel make of a signal. */
import type { ItemKind } from '@barys/core/loop';
import type { Queryable } from '@barys/store/db';
import type { Actor } from '@barys/store/people';
import { keepLoop, loopSchema } from '@barys/store/registers';
import data from './data/loops.json';

/** Texts of the tool, and the chain that they come to: this demo's items are linear, or a root with a cut-off. */
export async function plantLoops(tx: Queryable, actor: Actor): Promise<void> {
  for (const [tag, { isFlow, judgedBy, items }] of Object.entries(data)) {
    const content = {
      isFlow: isFlow === 'yes',
      judgedBy,
      items: items.map((one) => ({
        name: one.name,
        kind: one.kind as ItemKind,
        from: one.from === '' ? null : items.findIndex(({ id }) => id === one.from),
        input: { low: Number(one.inLow), high: Number(one.inHigh) },
        output: { low: Number(one.outLow), high: Number(one.outHigh) },
        inputUnit: one.inUnit,
        outputUnit: one.outUnit,
        transfer:
          one.transfer === 'linear'
            ? { kind: 'linear' as const }
            : { kind: 'square-root-cut-off' as const, cutOffPercentOfFlow: Number(one.cutOff) },
        tolerancePercent: Number(one.tolerance),
      })),
    };
    const fields = { isFlow, judgedBy, items: JSON.stringify(items) };
    await keepLoop(tx, actor, tag, loopSchema.parse({ fields, content, reason: 'from the loop drawing' }));
  }
}
