/** An instrument that speaks HART, as a port. */
import type { Identity, InstrumentAct, Port, PortValue, ReadSetup, Tried, Wire } from '@barys/core/port';
import { setTimeout as sleep } from 'node:timers/promises';
import { isPressureUnit, type PressureUnit } from '@barys/core/units';
import { CELSIUS, LOOP_FIXED, MALFUNCTION, statusWords, VOLT } from './codes';
import {
  fixCurrent,
  HartInstrument,
  readLimits,
  readOutput,
  readTag,
  readVariables,
  Refused,
  trimOutputGain,
  trimOutputZero,
  trimZero,
  writeDamping,
  writeRange,
  writeTransfer,
  writeUnit,
} from './instrument';

type HartWire = Extract<Wire, { readonly speaks: 'HART-IP' }>;

/** A command over a loop at 1200 bits a second takes half a second, and a gateway may have others before it. */
const ANSWER_MS = 3000;

const hex = (value: number, digits: number): string => value.toString(16).toUpperCase().padStart(digits, '0');

const serialOf = (id: number): string => hex(id, 6);

async function identityOf(instrument: HartInstrument): Promise<Identity> {
  const { type, id, software } = await instrument.whoIsThere();
  const { tag, descriptor } = await readTag(instrument);
  return {
    maker: `HART type ${hex(type, 4)}`,
    // What a technician named it, which says which one is meant.
    model: [tag, descriptor].filter(Boolean).join(' ').toLowerCase(),
    serial: serialOf(id),
    firmware: String(software),
  };
}

/**
 * @param clock ms
 * @param wait for what is damped to follow, ms
 */
export function hartPort(
  { at, pollingAddress }: HartWire,
  clock: () => number = Date.now,
  wait: (ms: number) => Promise<unknown> = sleep,
  answerMs = ANSWER_MS,
): Port {
  const instrument = new HartInstrument(at, pollingAddress, answerMs);
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
    readSetup: () => setupOf(instrument),
    write: async (act, serial) => {
      const done = await write(instrument, act, serial, wait);
      status = done.after.isFixed ? status | LOOP_FIXED : status & ~LOOP_FIXED;
      return done;
    },
    tryOut: () => tryOut(instrument),
    state: () =>
      Promise.resolve(
        (status & MALFUNCTION) !== 0 ? 'alarm' : (status & LOOP_FIXED) !== 0 ? 'fixed current' : 'measuring',
      ),
    close: () => {
      instrument.close();
      return Promise.resolve();
    },
  };
}

async function setupOf(instrument: HartInstrument): Promise<ReadSetup> {
  const { id } = await instrument.whoIsThere();
  const { tag } = await readTag(instrument);
  const { unit, lrv, urv, dampingS, transfer, isProtected } = await readOutput(instrument);
  const { value, unit: valueUnit, milliamp, others, status } = await readVariables(instrument);
  if (valueUnit !== unit) throw new Error('Its unit changed while it was read. Read it again.');
  return {
    tag,
    serial: serialOf(id),
    unit,
    lrv,
    urv,
    dampingS,
    transfer,
    isProtected,
    value,
    milliamp,
    isFixed: (status & LOOP_FIXED) !== 0,
    temperaturesC: others.filter(({ code }) => code === CELSIUS).map(({ value: one }) => one),
    volts: others.find(({ code }) => code === VOLT)?.value ?? null,
  };
}

/** Reads, changes, reads again: nobody else has a word with it in between, as the port is asked one thing at a time. */
async function write(
  instrument: HartInstrument,
  act: InstrumentAct,
  serial: string,
  wait: (ms: number) => Promise<unknown>,
) {
  const before = await setupOf(instrument);
  if (before.serial !== serial)
    throw new Error(
      `Another instrument is there: it has the number ${before.serial}, not ${serial}. Nothing was changed.`,
    );
  try {
    await change(instrument, act);
    if (isFollowed(act)) await wait(Math.min(LONGEST_WAIT_S, FOLLOWS_AFTER * before.dampingS) * 1000);
    return { before, after: await setupOf(instrument) };
  } catch (error) {
    // What was refused was not done; of anything else nobody knows.
    if (error instanceof Refused) throw error;
    const words = error instanceof Error ? error.message : String(error);
    throw new Error(
      `${words} It may have been changed all the same: read it, and log by hand what was done.`,
      {
        cause: error,
      },
    );
  }
}

/** After as many time constants a damped output has followed to less than a hundredth. */
const FOLLOWS_AFTER = 5;
const LONGEST_WAIT_S = 20;

/** Whether its damped output moves with it. */
const isFollowed = (act: InstrumentAct): boolean =>
  ['zero trim', 'range', 'transfer function'].includes(act.kind) ||
  (act.kind === 'fixed current' && act.milliamp === null);

const pressureUnit = (unit: string): PressureUnit => {
  if (!isPressureUnit(unit)) throw new Error(`${unit} is no unit of pressure.`);
  return unit;
};

function change(instrument: HartInstrument, act: InstrumentAct): Promise<unknown> {
  switch (act.kind) {
    case 'zero trim':
      return trimZero(instrument);
    case 'output trim':
      return (act.at === 4 ? trimOutputZero : trimOutputGain)(instrument, act.measured);
    case 'fixed current':
      // Zero lets it go.
      return fixCurrent(instrument, act.milliamp ?? 0);
    case 'damping':
      return writeDamping(instrument, act.seconds);
    case 'range':
      return writeRange(instrument, { ...act, unit: pressureUnit(act.unit) });
    case 'unit':
      return writeUnit(instrument, pressureUnit(act.unit));
    case 'transfer function':
      return writeTransfer(instrument, act.transfer);
  }
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
