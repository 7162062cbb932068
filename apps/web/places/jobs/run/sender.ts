/**
 * Sends what waits in a run's keeping, in the order of entry, until the server has it. Readings that follow each other,
 * such as a pasted column or those taken without a network, go in one request.
 */
import type { Draft, Kept, KeptStore, Waiting, WaitingReading } from './keep';
import { send, sendTogether, type Outcome } from './send';

export type SenderEvent =
  | { readonly kind: 'saved'; readonly sent: Waiting; readonly id: number; readonly savedClock: string }
  | { readonly kind: 'refused'; readonly sent: Waiting; readonly why: string }
  | { readonly kind: 'later'; readonly why: string };

/** As many as a request may hold with room to spare. */
const MOST_TOGETHER = 100;

const draftOf = ({ outputText, appliedAs, appliedText, more }: WaitingReading): Draft => ({
  output: outputText,
  applied: appliedAs === 'read' ? appliedText : null,
  more,
});

/** The readings that stand first, each at another point: what corrects one of them has to wait for its number. */
export function leadingReadings(waiting: readonly Waiting[]): WaitingReading[] {
  const leading: WaitingReading[] = [];
  for (const one of waiting) {
    const isNext = one.kind === 'reading' && leading.every(({ position }) => position !== one.position);
    if (!isNext || leading.length === MOST_TOGETHER) break;
    leading.push(one);
  }
  return leading;
}

export class Sender {
  private isSending = false;

  /**
   * @param standing which reading stands at each point, for the next one there to correct
   * @param tell called for all that the server says
   */
  constructor(
    private readonly runId: number,
    private readonly store: KeptStore,
    private readonly standing: Map<number, number>,
    private readonly desk: () => string,
    private readonly tell: (event: SenderEvent) => void,
  ) {}

  /**
   * Readings that somebody else keeps meanwhile: what is typed at their points from now on corrects them. What waits was
   * typed without having seen them, and corrects nothing.
   */
  learn(readings: readonly { readonly id: number; readonly position: number }[]): void {
    const { waiting } = this.store.get();
    for (const { id, position } of readings)
      if (!waiting.some((one) => one.position === position)) this.standing.set(position, id);
  }

  /** Sends until nothing waits, or the server has to be asked again later. One at a time; a second call is none. */
  async sendAll(): Promise<void> {
    if (this.isSending) return;
    this.isSending = true;
    try {
      // What is entered in one go, such as a pasted column, is there in a moment and goes together.
      await Promise.resolve();
      for (let waiting = this.store.get().waiting; waiting.length > 0; waiting = this.store.get().waiting)
        if (!(await this.sendFirst(waiting))) break;
    } finally {
      this.isSending = false;
    }
  }

  /** @returns whether to go on */
  private async sendFirst(waiting: readonly Waiting[]): Promise<boolean> {
    const together = leadingReadings(waiting);
    if (together.length > 1) {
      const outcomes = await sendTogether(this.runId, together, this.standing, this.desk());
      // One of them was refused, and none was kept: each by itself finds out which.
      if (outcomes !== null) return this.settleAll(together, outcomes);
      for (const one of together) if (!(await this.sendOne(one))) return false;
      return true;
    }
    const [first] = waiting;
    return first === undefined ? true : this.sendOne(first);
  }

  private async sendOne(sent: Waiting): Promise<boolean> {
    const supersedes = this.standing.get(sent.position) ?? null;
    return this.settle(sent, await send(this.runId, sent, supersedes, this.desk()));
  }

  private settleAll(sent: readonly Waiting[], outcomes: readonly Outcome[]): boolean {
    return sent.every((one, index) => {
      const outcome = outcomes[index];
      return outcome !== undefined && this.settle(one, outcome);
    });
  }

  private settle(sent: Waiting, outcome: Outcome): boolean {
    if (outcome.kind === 'later') {
      this.tell(outcome);
      return false;
    }
    const { drafts, waiting } = this.store.get();
    const rest = waiting.filter(({ clientKey }) => clientKey !== sent.clientKey);
    if (outcome.kind === 'saved') {
      if (sent.kind === 'reading') this.standing.set(sent.position, outcome.id);
      this.tell({ ...outcome, sent });
      this.store.set({ drafts, waiting: rest });
    } else {
      this.tell({ ...outcome, sent });
      // Back to a draft: what was typed is not lost, and it is plain that it is not kept.
      const back: Kept['drafts'] = sent.kind === 'mark' ? {} : { [sent.position]: draftOf(sent) };
      this.store.set({ drafts: { ...drafts, ...back }, waiting: rest });
    }
    return true;
  }
}
