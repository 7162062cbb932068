/** An instrument behind its driver, as a port. */
import type {
  Channel,
  Driver,
  Port,
  PortState,
  PortValue,
  Question,
  SerialAddress,
  TcpAddress,
  Tried,
} from '@barys/core/port';
import { convert, isUnit } from '@barys/core/units';
import { TextConnection } from './connection';
import { filled, matched, numberOf, shortened } from './driver';

/** Digits of a figure that an instrument is set to. */
const DIGITS = 9;
const written = (value: number): string => String(Number(value.toPrecision(DIGITS)));

/**
 * @param at entered by an administrator; nothing else is ever opened
 * @param clock ms
 */
export function textPort(
  driver: Driver,
  at: TcpAddress | SerialAddress,
  clock: () => number = Date.now,
): Port {
  const connection = new TextConnection(at, driver);
  /** The connection that was set up for this driver. */
  let begun: number | null = null;
  let state: PortState = 'measuring';

  /** All commands of one act, nothing in between, in a connection that is set up. */
  const act = <T>(work: () => Promise<T>): Promise<T> =>
    connection.alone(async () => {
      if (connection.session === null || connection.session !== begun) {
        for (const command of driver.begin) await connection.tell(command);
        begun = connection.session;
      }
      return work();
    });

  const complain = async (): Promise<void> => {
    if (driver.errors === null) return;
    const line = await connection.ask(driver.errors.ask);
    if (!new RegExp(`^(?:${driver.errors.answer})$`).test(line))
      throw new Error(`The instrument says: ${shortened(line)}`);
  };
  const command =
    (commands: readonly string[], then: PortState) =>
    (figures: Readonly<Record<string, string>> = {}): Promise<void> =>
      act(async () => {
        for (const one of commands) await connection.tell(filled(one, figures));
        await complain();
        state = then;
      });

  const { set, hold, vent } = driver;
  return {
    channels: Object.keys(driver.reads) as Channel[],
    identify: () =>
      act(async () => {
        const {
          maker = '',
          model = '',
          serial = '',
          firmware = '',
        } = matched(driver.identify, await connection.ask(driver.identify.ask));
        return { maker, model, serial, firmware };
      }),
    tryOut: async () => {
      const tried: Tried[] = [];
      for (const [what, question, understand] of questionsOf(driver))
        tried.push(
          await tryOne(what, question.ask, () => act(() => connection.ask(question.ask)), understand),
        );
      return tried;
    },
    read: (channel) =>
      act(async (): Promise<PortValue> => {
        const how = driver.reads[channel];
        if (how === undefined) throw new Error(`${driver.name} has no ${channel}.`);
        const raw = await connection.ask(how.ask);
        return { ...understood(driver, how, raw), at: clock(), raw };
      }),
    ...(set && {
      set: async (value, unit, ratePerS) =>
        command(set, 'controlling')(figuresOf(driver, value, unit, ratePerS)),
    }),
    ...(hold && { hold: () => command(hold, 'holding')() }),
    ...(vent && { vent: () => command(vent, 'vented')() }),
    state: () => Promise.resolve(state),
    close: () => {
      connection.close();
      return Promise.resolve();
    },
  };
}

/**
 * What stands in the places of a command that sets a pressure, in the first unit of the driver.
 * @throws Error for a unit that is none of pressure
 */
function figuresOf({ units }: Driver, value: number, unit: string, ratePerS: number | null) {
  const { theirs, ours } = units[0] ?? { theirs: '', ours: '' };
  if (!isUnit(unit) || !isUnit(ours)) throw new Error(`It cannot be set in ${unit}.`);
  const inOwn = (one: number) => written(convert(one, unit, ours));
  return { value: inOwn(value), unit: theirs, rate: ratePerS === null ? 'MAX' : inOwn(ratePerS) };
}

type Read = NonNullable<Driver['reads'][Channel]>;

/** @throws Error naming what came, where it is no value in a unit that the driver knows */
function understood(driver: Driver, how: Read, raw: string): Pick<PortValue, 'value' | 'unit' | 'isStable'> {
  const { value = '', unit, stable } = matched(how, raw);
  const meant =
    unit === undefined ? how.unit : driver.units.find(({ theirs }) => theirs === unit.trim())?.ours;
  if (meant == null)
    throw new Error(`"${shortened(unit ?? raw)}" says a unit that its driver does not know.`);
  return { value: numberOf(value), unit: meant, isStable: stable === undefined ? null : stable === '1' };
}

type Trial = readonly [what: string, question: Question, understand: (raw: string) => string];

/** All that a driver asks, and in words what is understood of an answer. */
function questionsOf(driver: Driver): Trial[] {
  const reads = Object.entries(driver.reads) as [Channel, Read][];
  return [
    [
      'Who it is',
      driver.identify,
      (raw) => Object.values(matched(driver.identify, raw)).filter(Boolean).join(', '),
    ],
    ...reads.map(([channel, how]): Trial => [
      channel,
      how,
      (raw) => {
        const { value, unit, isStable } = understood(driver, how, raw);
        return `${value} ${unit}${isStable === null ? '' : isStable ? ', stable' : ', not stable'}`;
      },
    ]),
    ...(driver.errors === null ? [] : [errorsTrial(driver.errors)]),
  ];
}

const errorsTrial = (errors: Question): Trial => [
  'Errors',
  errors,
  (raw) => {
    matched(errors, raw);
    return 'none';
  },
];

async function tryOne(
  what: string,
  asked: string,
  ask: () => Promise<string>,
  understand: (raw: string) => string,
): Promise<Tried> {
  let answered = '';
  try {
    answered = await ask();
    return { what, asked, answered, words: understand(answered), isGood: true };
  } catch (error) {
    const words = error instanceof Error ? error.message : String(error);
    return { what, asked, answered, words, isGood: false };
  }
}
