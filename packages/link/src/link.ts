/**
 * A link: it stands at a bench, reads its instruments, tells Barys, and goes through the run that it is given. What it has read
 * and Barys has not confirmed it sends again; what it does not know after a start, Barys tells it. It keeps no file.
 */
import {
  advance,
  begin,
  obey,
  type Act,
  type AutoState,
  type Seen,
  type Taken,
  type Value,
} from '@barys/core/automatic';
import type {
  Beat,
  BeatAnswer,
  BeatTaken,
  BeatValue,
  BenchRequest,
  Channel,
  Identity,
  Port,
  RequestAnswer,
  Task,
  TaskTap,
  Tried,
} from '@barys/core/port';
import { convert, isUnit } from '@barys/core/units';
import { randomUUID } from 'node:crypto';
import type { Bench, Device } from './bench';

/** Barys, however it is reached. */
export interface Barys {
  beat(this: void, beat: Beat): Promise<BeatAnswer>;
}

/** Without a word from Barys for so long nobody watches: what is under pressure is shut in. */
const CONTACT_S = 10;

const wordsOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));

/** How long an instrument that was late before is waited for. */
const SHORT_MS = 20;
/** Answers of requests that are told at once. */
const MOST_ANSWERS = 10;

class Late extends Error {
  constructor() {
    super('It does not answer.');
  }
}

/** As much as Barys takes of it: what is longer would make it refuse all that is told with it. */
const cut = (text: string, most: number): string => text.slice(0, most);

type Asked = Channel | 'state' | 'identity';

interface Read extends BeatValue {
  /** s by the clock of the link. */
  readonly s: number;
}

/** A value in the unit that is asked for; an error where its own is of another quantity. */
const inUnit = (value: number, from: string, to: string): number => {
  if (from === to) return value;
  if (!isUnit(from) || !isUnit(to)) throw new Error(`${from} is not ${to}`);
  return convert(value, from, to);
};

export class Link {
  private task: Task | null = null;
  private state: AutoState | null = null;
  private doneOrder = 0;
  /** Of a point that was asked for once more. */
  private repeating: number | null = null;
  private unsent: readonly BeatTaken[] = [];
  private heardS: number;
  private isAlone = false;
  private leftS: number | null = null;
  private working: Promise<void> = Promise.resolve();
  private answers: Beat['answers'] = [];
  /** What was asked and is not answered yet, and what was late before: a slow instrument is not asked again meanwhile. */
  private readonly asked = new WeakMap<
    Port,
    { readonly open: Map<Asked, Promise<unknown>>; readonly late: Set<Asked> }
  >();
  private readonly identities = new WeakMap<Port, Identity>();

  /** @param clock s, of any beginning; all times of a run are by it */
  constructor(
    private readonly bench: Bench,
    private readonly barys: Barys,
    private readonly clock: () => number,
    /** An instrument that takes longer to answer gives no value now. */
    private readonly answerMs = 1500,
  ) {
    this.heardS = clock();
  }

  /** One look at the instruments, one word with Barys, one step of the run. */
  async turn(): Promise<void> {
    const read = await this.readAll();
    if (this.task !== null && this.state !== null && !this.isAlone)
      await this.goOn(this.task, this.state, read);
    const sent = this.unsent;
    const beat: Beat = {
      values: read.map(({ s: _s, ...value }) => value),
      taken: sent,
      answers: this.answers.slice(0, MOST_ANSWERS),
      state: this.task === null || this.state === null ? null : this.standing(this.task, this.state),
    };
    let answer: BeatAnswer;
    try {
      answer = await this.barys.beat(beat);
    } catch (error) {
      await this.standAlone();
      throw error;
    }
    this.heardS = this.clock();
    this.unsent = this.unsent.filter((one) => !sent.includes(one));
    this.answers = this.answers.filter((one) => !beat.answers.includes(one));
    await this.hear(answer);
  }

  /**
   * Lets go of all that is under pressure.
   * @throws Error naming those that did not answer, once all were told
   */
  async end(): Promise<void> {
    const told = await Promise.allSettled(
      this.bench.devices.map(async ({ name, port }) => {
        try {
          if (port.vent !== undefined) await this.inTime(port.vent());
        } catch (error) {
          throw new Error(`${name} may be under pressure: ${wordsOf(error)}`, { cause: error });
        } finally {
          await port.close();
        }
      }),
    );
    const failed = told.filter((one) => one.status === 'rejected');
    if (failed.length > 0) throw new Error(failed.map(({ reason }) => wordsOf(reason)).join(' '));
  }

  private async readAll(): Promise<Read[]> {
    const all = this.bench.devices.map(async (device) => {
      const { port } = device;
      // Beside the values, which do not wait for it.
      void this.identify(port);
      const state = await this.answerOf(port, 'state', () => port.state()).catch(() => 'away');
      return Promise.all(port.channels.map((channel) => this.readOne(device, channel, state)));
    });
    return (await Promise.all(all)).flat();
  }

  /** Who it is, once it has said it; asked again after it was away. */
  private async identify(port: Port): Promise<void> {
    if (this.identities.has(port)) return;
    const identity = await this.answerOf(port, 'identity', () => port.identify()).catch(() => null);
    if (identity !== null) this.identities.set(port, identity);
  }

  private async readOne({ name, port }: Device, channel: Channel, state: string): Promise<Read> {
    const who = () => {
      const { maker, model, serial } = this.identities.get(port) ?? { maker: '', model: '', serial: '' };
      return { model: cut(`${maker} ${model}`.trim(), 200), serial: cut(serial, 80) };
    };
    const of = { device: name, channel, state };
    try {
      const { value, unit, at, isStable, raw, s } = await this.answerOf(port, channel, async () => {
        // As old as the question: when it was measured is not known better.
        const askedS = this.clock();
        return { ...(await port.read(channel)), s: askedS };
      });
      if (!Number.isFinite(value)) throw new Error('It gives no number.');
      return {
        ...of,
        ...who(),
        value,
        unit: cut(unit, 20),
        raw: cut(raw, 400),
        isStable,
        trouble: '',
        at,
        s,
      };
    } catch (error) {
      // Whatever is there when it answers again says who it is.
      this.identities.delete(port);
      const none = { value: null, unit: '', raw: '', isStable: null };
      return { ...of, ...who(), ...none, trouble: cut(wordsOf(error), 400), at: Date.now(), s: this.clock() };
    }
  }

  /**
   * An answer of an instrument. One that is late is waited for once, and taken when it has come; an instrument that was late
   * before is not waited for again, so that the others are read as often as ever.
   */
  private async answerOf<T>(port: Port, key: Asked, ask: () => Promise<T>): Promise<T> {
    const asked = this.asked.get(port) ?? {
      open: new Map<Asked, Promise<unknown>>(),
      late: new Set<Asked>(),
    };
    this.asked.set(port, asked);
    const answer = (asked.open.get(key) as Promise<T> | undefined) ?? ask();
    asked.open.set(key, answer);
    try {
      const found = await this.inTime(answer, asked.late.has(key) ? SHORT_MS : this.answerMs);
      asked.open.delete(key);
      asked.late.delete(key);
      return found;
    } catch (error) {
      if (error instanceof Late) asked.late.add(key);
      else asked.open.delete(key);
      throw error;
    }
  }

  /** Done beside the beats, which go on, one after another: nothing is read while something is changed. */
  private take({ id, device, request }: BeatAnswer['requests'][number]): void {
    this.working = this.working.then(async () => {
      const port = this.bench.devices.find(({ name }) => name === device)?.port;
      const answer = await this.done(port, request).catch((error: unknown): RequestAnswer => ({
        kind: 'trouble',
        words: cut(wordsOf(error), 400),
      }));
      this.answers = [...this.answers, { id, answer }];
    });
  }

  private async done(port: Port | undefined, request: BenchRequest): Promise<RequestAnswer> {
    if (port === undefined) throw new Error('The link has no such instrument.');
    switch (request.kind) {
      case 'trial':
        if (port.tryOut === undefined) throw new Error('It cannot be tried.');
        return { kind: 'trial', tried: (await port.tryOut()).map(shortTried) };
      case 'set-up':
        if (port.readSetup === undefined) throw new Error('It does not tell its settings.');
        // In the middle of a run it stands in for the instrument of the run.
        if (this.task === null) this.bench.takeOn(request.configuration);
        return { kind: 'set-up', setup: await port.readSetup() };
      case 'write': {
        if (port.write === undefined) throw new Error('Nothing can be changed at it over a link.');
        if (this.task !== null) throw new Error('A run goes on at this bench.');
        return { kind: 'write', ...(await port.write(request.act, request.serial)) };
      }
    }
  }

  private async goOn(task: Task, state: AutoState, read: readonly Read[]): Promise<void> {
    const seen = this.seenOf(task, read);
    const { state: next, act, taken, leftS } = advance(task.plan, this.atOpen(task, state), seen);
    this.state = next;
    this.leftS = leftS;
    if (act !== null) await this.act(task, act);
    if (taken === null) return;
    this.unsent = [...this.unsent, takenOf(task, taken, read, this.repeating === taken.position)];
    this.repeating = null;
  }

  /** A point that has a reading by now, typed or taken, is passed over, unless it was asked for again. */
  private atOpen({ plan, open }: Task, state: AutoState): AutoState {
    const isToDo = (index: number) => {
      const position = plan.stops[index]?.position;
      if (position === undefined) return true;
      return (
        position === this.repeating ||
        (open.includes(position) && !this.unsent.some((taken) => taken.position === position))
      );
    };
    let { index } = state;
    while (!isToDo(index)) index += 1;
    if (index === state.index || state.phase === 'held') return { ...state, index };
    return begin(index, this.clock(), state.isStepping);
  }

  private seenOf({ plan, devices, taps }: Task, read: readonly Read[]): Seen {
    const valueOf = (device: string | null, channel: Channel, unit: string): Value | null => {
      const found = read.find((one) => one.device === device && one.channel === channel);
      if (found?.value == null) return null;
      try {
        return { s: found.s, value: inUnit(found.value, found.unit, unit), isStable: found.isStable };
      } catch {
        // A unit that is not the one asked for says nothing of this quantity.
        return null;
      }
    };
    const inAlarm = read.find(
      ({ device, state }) =>
        ['alarm', 'fixed current'].includes(state) &&
        [devices.reference, devices.output, devices.digital, ...taps.map((tap) => tap.device)].includes(
          device,
        ),
    );
    return {
      s: this.clock(),
      reference: valueOf(devices.reference, 'pressure', plan.unit),
      output: valueOf(devices.output, 'current', 'mA'),
      digital: valueOf(devices.digital, 'digital value', plan.unit),
      taps: taps.map((tap) => tapOf(tap, read)),
      alarm:
        inAlarm === undefined
          ? null
          : inAlarm.state === 'alarm'
            ? `${inAlarm.device} says that something is wrong with it.`
            : `${inAlarm.device} says that its loop current is fixed: let it go first.`,
    };
  }

  private async act({ plan, devices }: Task, act: Act): Promise<void> {
    // What a person works is left alone, whoever hears of it.
    if (plan.isByHand) return;
    const port = this.bench.devices.find(({ name }) => name === devices.reference)?.port;
    try {
      if (act.kind === 'set') await this.inTime(port?.set?.(act.pressure, plan.unit, act.ratePerS));
      if (act.kind === 'hold') await this.inTime(port?.hold?.());
      if (act.kind === 'vent') await this.inTime(port?.vent?.());
    } catch (error) {
      // It is set again once somebody has looked.
      if (this.state !== null)
        this.state = {
          ...this.state,
          phase: 'held',
          held: {
            why: 'no contact',
            words: `${devices.reference}: ${wordsOf(error)}`,
          },
        };
    }
  }

  private standing({ automatic, plan }: Task, { phase, index, held }: AutoState): NonNullable<Beat['state']> {
    return {
      automatic,
      doneOrder: this.doneOrder,
      state: {
        phase,
        position: plan.stops[index]?.position ?? null,
        words: held?.words ?? '',
        leftS: this.leftS,
      },
    };
  }

  /** Nobody hears of what goes on: the run stands until somebody does. */
  private async standAlone(): Promise<void> {
    if (this.isAlone || this.task === null || this.clock() - this.heardS < CONTACT_S) return;
    this.isAlone = true;
    await this.act(this.task, { kind: this.task.plan.onLoss });
  }

  private async hear({ task, refused, ends, requests }: BeatAnswer): Promise<void> {
    await this.bench.connect(ends);
    for (const request of requests) this.take(request);
    const before = this.task;
    this.task = task;
    if (task === null) {
      // Whoever took it over finds it as it stands.
      if (before !== null && this.state?.phase !== 'finished') await this.act(before, { kind: 'hold' });
      this.state = null;
      return;
    }
    if (before?.automatic !== task.automatic) {
      this.bench.takeOn(task.configuration);
      this.unsent = [];
      this.repeating = null;
      this.doneOrder = task.doneOrder;
      this.state = begin(0, this.clock());
      if (task.wasHeld !== null)
        this.state = { ...this.state, phase: 'held', held: { why: 'by hand', words: task.wasHeld } };
    } else if (this.isAlone && this.state !== null && this.state.phase !== 'held')
      this.state = begin(this.state.index, this.clock(), this.state.isStepping);
    this.isAlone = false;
    for (const order of task.orders) await this.obey(task, order);
    if (refused.length > 0 && this.state !== null)
      this.state = {
        ...this.state,
        phase: 'held',
        held: { why: 'by hand', words: refused.map(({ words }) => words).join(' ') },
      };
  }

  private async obey(task: Task, { id, name }: Task['orders'][number]): Promise<void> {
    if (id <= this.doneOrder || this.state === null) return;
    this.doneOrder = id;
    const lastTaken = this.unsent.at(-1)?.position ?? task.lastTaken;
    const { state, act } = obey(task.plan, this.state, name, this.clock(), lastTaken);
    this.state = state;
    if (name === 'repeat') this.repeating = lastTaken;
    if (act !== null) await this.act(task, act);
  }

  private async inTime<T>(answer: Promise<T> | undefined, limitMs = this.answerMs): Promise<T> {
    if (answer === undefined) throw new Error('It cannot do that.');
    let timer: NodeJS.Timeout | undefined;
    const late = new Promise<never>((_resolve, reject) => {
      timer = setTimeout(() => reject(new Late()), limitMs);
    });
    try {
      return await Promise.race([answer, late]);
    } finally {
      clearTimeout(timer);
    }
  }
}

const shortTried = ({ what, asked, answered, words, isGood }: Tried): Tried => ({
  what: cut(what, 60),
  asked: cut(asked, 400),
  answered: cut(answered, 5000),
  words: cut(words, 400),
  isGood,
});

/** A hair below zero is written as zero: no record shows a sign without a figure. */
export function textOf(value: number, decimals: number): string {
  const text = value.toFixed(decimals);
  return Number(text) === 0 ? (0).toFixed(decimals) : text;
}

/** What is read at a tap, in its unit; a receiver that shows per cent shows them of its scale. */
function tapOf({ device, channel, unit, low, high }: TaskTap, read: readonly Read[]): Value | null {
  const found = read.find((one) => one.device === device && one.channel === channel);
  if (found?.value == null) return null;
  const value = (at: number): Value => ({ s: found.s, value: at, isStable: found.isStable });
  if (found.unit === '%' && unit !== '%') return value(low + (found.value / 100) * (high - low));
  try {
    return value(inUnit(found.value, found.unit, unit));
  } catch {
    return null;
  }
}

function takenOf(task: Task, taken: Taken, read: readonly Read[], isRepeat: boolean): BeatTaken {
  const { devices, decimals, automatic } = task;
  const rawOf = (device: string | null, channel: Channel): string =>
    read.find((one) => one.device === device && one.channel === channel)?.raw ?? '';
  return {
    automatic,
    position: taken.position,
    clientKey: randomUUID(),
    appliedText: textOf(taken.reference.value, decimals.input),
    outputText: textOf(taken.output.value, decimals.output),
    digitalText: taken.digital === null ? null : textOf(taken.digital.value, decimals.input),
    taps: task.taps.map(({ key, device, channel, decimals: digits }, i) => ({
      key,
      text: textOf(taken.taps[i]?.value ?? NaN, digits),
      raw: rawOf(device, channel),
    })),
    raw: {
      applied: rawOf(devices.reference, 'pressure'),
      output: rawOf(devices.output, 'current'),
      digital: rawOf(devices.digital, 'digital value'),
    },
    takenAt: Date.now(),
    isRepeat,
  };
}
