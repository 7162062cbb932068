/** The acts of advice as a table shows them; plain data, so that a server can hand it to a browser. */
import {
  actWords,
  remarkOf,
  workOutlook,
  type ActOutlook,
  type AdjustableBody,
  type Advice,
} from '@barys/core/adjust';
import type { SignalRange } from '@barys/core/signal';
import type { Step } from '@barys/core/working';

/** What is shown of an act. */
export interface ShownAct {
  readonly act: ActOutlook['act'];
  readonly name: string;
  /** Largest error left, signed, per cent of span; empty where it cannot be told. */
  readonly worst: string;
  readonly suffices: ActOutlook['suffices'];
  readonly remark: string;
  readonly isLead: boolean;
  /** How its worst error follows; none where it cannot be told. */
  readonly working: readonly Step[];
}

export function shownActs(
  range: SignalRange,
  advice: Advice,
  body: AdjustableBody,
  percent: (value: number) => string,
): readonly ShownAct[] {
  return advice.acts.map((outlook) => {
    const worst = outlook.points?.[outlook.worst ?? -1];
    return {
      act: outlook.act,
      name: actWords(outlook.act, body),
      worst: worst === undefined ? '' : percent(worst.errorPercentSpan),
      suffices: outlook.suffices,
      remark: remarkOf(outlook, advice),
      isLead: outlook.act === advice.lead,
      working: workOutlook(range, advice, outlook.act),
    };
  });
}
