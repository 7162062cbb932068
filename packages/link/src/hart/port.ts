/** An instrument that speaks HART, as a port. */
import type { Identity, Port, PortValue, Tried, Wire } from '@barys/core/port';
import { CELSIUS, MALFUNCTION, statusWords, VOLT } from './codes';
import { HartInstrument, readLimits, readOutput, readTag, readVariables } from './instrument';

type HartWire = Extract<Wire, { readonly speaks: 'HART-IP' }>;

/** A command over a loop at 1200 bits a second takes half a second, and a gateway may have others before it. */
const ANSWER_MS = 3000;

const hex = (value: number, digits: number): string => value.toString(16).toUpperCase().padStart(digits, '0');

async function identityOf(instrument: HartInstrument): Promise<Identity> {
  const { type, id, software } = await instrument.whoIsThere();
  const { tag, descriptor } = await readTag(instrument);
  return {
    maker: `HART type ${hex(type, 4)}`,
    // What a technician named it, which says which one is meant.
    model: [tag, descriptor].filter(Boolean).join(' ').toLowerCase(),
    serial: hex(id, 6),
    firmware: String(software),
  };
}

/** @param clock ms */
export function hartPort({ at, pollingAddress }: HartWire, clock: () => number = Date.now): Port {
  const instrument = new HartInstrument(at, pollingAddress, ANSWER_MS);
  let status = 0;
  return {
    channels: ['digital value'],
    identify: () => identityOf(instrument),
    async read(channel): Promise<PortValue> {
      if (channel !== 'digital value') throw new Error(`It gives no ${channel} to be measured.`);
      const found = await readVariables(instrument);
      status = found.status;
      return { value: found.value, unit: found.unit, at: clock(), isStable: null, raw: found.raw };
    },
    async readSetup() {
      const { tag } = await readTag(instrument);
      const { unit, lrv, urv, dampingS, transfer, isProtected } = await readOutput(instrument);
      const { milliamp, others } = await readVariables(instrument);
      return {
        tag,
        unit,
        lrv,
        urv,
        dampingS,
        transfer,
        isProtected,
        milliamp,
        temperaturesC: others.filter(({ code }) => code === CELSIUS).map(({ value }) => value),
        volts: others.find(({ code }) => code === VOLT)?.value ?? null,
      };
    },
    tryOut: () => tryOut(instrument),
    state: () => Promise.resolve((status & MALFUNCTION) !== 0 ? 'alarm' : 'measuring'),
    close: () => {
      instrument.close();
      return Promise.resolve();
    },
  };
}

async function tryOut(instrument: HartInstrument): Promise<Tried[]> {
  const tried: Tried[] = [];
  const ask = async (
    what: string,
    asked: string,
    work: () => Promise<{ answered: string; words: string }>,
  ) => {
    try {
      tried.push({ what, asked, ...(await work()), isGood: true });
    } catch (error) {
      const words = error instanceof Error ? error.message : String(error);
      tried.push({ what, asked, answered: '', words, isGood: false });
    }
  };
  await ask('Who it is', 'commands 0 and 13', async () => {
    const { maker, model, serial, firmware } = await identityOf(instrument);
    return { answered: '', words: [maker, model, `number ${serial}`, `software ${firmware}`].join(', ') };
  });
  await ask('digital value', 'command 3', async () => {
    const { value, unit, milliamp, status, raw } = await readVariables(instrument);
    const state = ['', ...statusWords(status)].join('; ');
    return { answered: raw, words: `${value} ${unit}, ${milliamp} mA${state}` };
  });
  await ask('Limits', 'command 14', async () => {
    const { lower, upper, leastSpan, unit } = await readLimits(instrument);
    return { answered: '', words: `${lower} to ${upper} ${unit}, least span ${leastSpan} ${unit}` };
  });
  await ask('Set-up', 'command 15', async () => {
    const { lrv, urv, unit, dampingS, transfer } = await readOutput(instrument);
    return {
      answered: '',
      words: `${lrv} to ${urv} ${unit}, ${transfer ?? 'a curve of its own'}, damping ${dampingS} s`,
    };
  });
  return tried;
}
