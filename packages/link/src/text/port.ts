/** An instrument behind its driver, as a port. */
import type { Channel, Port, PortState, PortValue } from '@barys/core/port';
import { convert, isUnit } from '@barys/core/units';
import { TextConnection, type Address } from './connection';
import { filled, matched, numberOf, shortened, type Driver } from './driver';

/** Digits of a figure that an instrument is set to. */
const DIGITS = 9;
const written = (value: number): string => String(Number(value.toPrecision(DIGITS)));

/**
 * @param address entered by an administrator; nothing else is ever opened
 * @param clock ms
 */
export function textPort(driver: Driver, address: Address, clock: () => number = Date.now): Port {
  const connection = new TextConnection(address, driver);
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

  /** The unit that an instrument is set in: the first that its driver knows. */
  const [ownUnit, unitInWords] = Object.entries(driver.units)[0] ?? ['', ''];
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
    read: (channel) =>
      act(async (): Promise<PortValue> => {
        const how = driver.reads[channel];
        if (how === undefined) throw new Error(`${driver.name} has no ${channel}.`);
        const raw = await connection.ask(how.ask);
        const at = clock();
        const { value = '', unit, stable } = matched(how, raw);
        const meant = unit === undefined ? how.unit : driver.units[unit.trim()];
        if (meant == null)
          throw new Error(`"${shortened(unit ?? raw)}" says a unit that its driver does not know.`);
        return {
          value: numberOf(value),
          unit: meant,
          at,
          isStable: stable === undefined ? null : stable === '1',
          raw,
        };
      }),
    ...(set && {
      set: (value, unit, ratePerS) => {
        if (!isUnit(unit) || !isUnit(unitInWords))
          return Promise.reject(new Error(`It cannot be set in ${unit}.`));
        const inOwn = (one: number) => written(convert(one, unit, unitInWords));
        return command(
          set,
          'controlling',
        )({
          value: inOwn(value),
          unit: ownUnit,
          rate: ratePerS === null ? 'MAX' : inOwn(ratePerS),
        });
      },
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
