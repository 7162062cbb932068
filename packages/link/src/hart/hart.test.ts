/** HART over HART-IP: frames by hand, the stand-in through its commands, and ends that are hostile. */
import type { HartAddress, InstrumentAct } from '@barys/core/port';
import { createServer, type AddressInfo, type Socket } from 'node:net';
import { afterEach, describe, expect, it } from 'vitest';
import { Simulation } from '../standIn';
import { float, floatAt, packed, unpacked } from './bytes';
import { statusWords, unitOfCode } from './codes';
import { DEVICE_TYPE, HartDevice } from './device';
import { frameBytes, frameOf, request } from './frame';
import * as hart from './instrument';
import { ABOUT, MESSAGE, messageBytes, messageOf, type Message } from './ip';
import { hartPort } from './port';
import { serveHart } from './server';

const toClose: (() => unknown)[] = [];
afterEach(async () => {
  for (const close of toClose.splice(0).reverse()) await close();
});

async function bench(
  kind: HartAddress['kind'] = 'tcp',
  ...planted: ConstructorParameters<typeof Simulation>[2] & object
) {
  let s = 0;
  const simulation = new Simulation(7, () => s, planted);
  const server = await serveHart(new HartDevice(7, simulation.now));
  toClose.push(() => server.close());
  const at: HartAddress = { kind, host: '127.0.0.1', port: server.port };
  const instrument = new hart.HartInstrument(at, 0, 500);
  toClose.push(() => instrument.close());
  return { simulation, at, instrument, pass: (seconds: number) => (s += seconds) };
}

describe('a frame', () => {
  it('is the one of the published examples: command 0 to polling address 0', () => {
    // 02 80 00 00 82: start, primary master and address 0, command 0, no data, and the check byte over them; common practice.
    expect(frameBytes(request({ kind: 'short', polling: 0 }, 0)).toString('hex')).toBe('0280000082');
  });

  it('is what was written, with a long address and data', () => {
    const frame = {
      ...request({ kind: 'long', type: DEVICE_TYPE & 0x3fff, id: 0x123456 }, 35, Buffer.from([12, 1, 2])),
      isAnswer: true,
      responseCode: 8,
      deviceStatus: 0x48,
    };
    expect(frameOf(frameBytes(frame))).toEqual(frame);
  });

  it.each([
    ['nothing', ''],
    ['another delimiter', '0480000084'],
    ['a wrong check byte', '0280000083'],
    ['a cut end', '02800000'],
    ['more than it says', '028000008200'],
    ['an answer without its status', '0680000086'],
  ])('is refused with %s', (_name, bytes) => {
    expect(() => frameOf(Buffer.from(bytes, 'hex'))).toThrow();
  });

  it('packs text four characters in three bytes, by hand for "PT-1    "', () => {
    // P 10 hex, T 14, - 2D, 1 31, and four blanks of 20: 010000 010100 101101 110001 and 100000 four times.
    expect(packed('PT-1', 8).toString('hex')).toBe('414b71820820');
    expect(unpacked(packed('pt-1', 8), 0, 6)).toBe('PT-1');
    expect(unpacked(packed('µ', 8), 0, 6)).toBe('?');
    expect(() => unpacked(packed('PT-1', 8), 0, 12)).toThrow('cut');
  });

  it('gives the digits that four bytes hold, and no number for none', () => {
    expect(floatAt(float(100.1), 0)).toBe(100.1);
    expect(() => floatAt(Buffer.from('7fa00000', 'hex'), 0)).toThrow('no number');
    expect(() => floatAt(Buffer.from('7f80', 'hex'), 0)).toThrow('no number');
    expect(() => unitOfCode(200)).toThrow('code 200');
    expect(statusWords(0x88)).toEqual([
      'it says that something is wrong with it',
      'its loop current is fixed',
    ]);
  });
});

describe.each(['tcp', 'udp'] as const)('the stand-in over %s', (kind) => {
  it('says who it is, what it measures and how it is set, in its own unit', async () => {
    const { simulation, instrument, at, pass } = await bench(kind);
    simulation.takeOn({
      tag: 'SIM-1',
      lrv: 0,
      urv: 250,
      inputUnit: 'kPa',
      dampingS: 2,
      transferFunction: { kind: 'square-root' },
    });
    simulation.now().world.source.set(100, null);
    pass(60);
    const port = hartPort({ speaks: 'HART-IP', at, pollingAddress: 0 });
    toClose.push(() => port.close());
    expect(await port.identify()).toEqual({
      maker: 'HART type 39F9',
      model: 'sim-1 simulated',
      serial: '000007',
      firmware: '1',
    });
    const { value, unit, raw, isStable } = await port.read('digital value');
    expect([unit, isStable]).toEqual(['kPa', null]);
    expect(value).toBeCloseTo(simulation.now().world.tested.digital, 1);
    expect(raw).toMatch(/^86b9f9000007/);
    await expect(port.read('current')).rejects.toThrow('gives no current');
    const setup = await port.readSetup?.();
    expect(setup).toMatchObject({
      tag: 'SIM-1',
      unit: 'kPa',
      lrv: 0,
      urv: 250,
      dampingS: 2,
      transfer: 'square-root',
      isProtected: false,
      temperaturesC: [20, 24],
    });
    // 40 % of the range is 63.2 % of its root: 14.12 mA.
    expect(setup?.milliamp).toBeCloseTo(4 + 16 * Math.sqrt(0.4), 1);
    await hart.writeUnit(instrument, 'bar');
    expect(await port.readSetup?.()).toMatchObject({ unit: 'bar', urv: 2.5 });
    expect((await port.tryOut?.())?.map(({ what, words, isGood }) => [what, words, isGood])).toEqual([
      ['Who it is', 'HART type 39F9, sim-1 simulated, number 000007, software 1', true],
      ['digital value', expect.stringMatching(/^(1\.00|0\.999)\d+ bar, 14\.1\d+ mA$/), true],
      ['Limits', '-5 to 5 bar, least span 0.05 bar', true],
      ['Set-up', '0 to 2.5 bar, square-root, damping 2 s', true],
    ]);
  });
});

describe('what is written', () => {
  it('range, damping, transfer function and unit are set, or refused in words', async () => {
    const { simulation, instrument } = await bench();
    const settings = () => simulation.now().world.tested.state.settings;
    await hart.writeRange(instrument, { unit: 'bar', lrv: 0.5, urv: 2 });
    expect([settings().lrv, settings().urv]).toEqual([expect.closeTo(50, 4), expect.closeTo(200, 4)]);
    await expect(hart.writeRange(instrument, { unit: 'bar', lrv: 0, urv: 70 })).rejects.toThrow('too large');
    await expect(hart.writeRange(instrument, { unit: 'bar', lrv: 1, urv: 1 })).rejects.toThrow('too small');
    expect(() => hart.writeRange(instrument, { unit: 'mTorr', lrv: 0, urv: 1 })).toThrow('no code');
    await hart.writeDamping(instrument, 3.2);
    expect(settings().dampingS).toBeCloseTo(3.2, 6);
    await expect(hart.writeDamping(instrument, -1)).rejects.toThrow('too small');
    await hart.writeTransfer(instrument, 'square-root');
    expect(settings().transfer).toEqual({ kind: 'square-root' });
    await expect(instrument.command(99)).rejects.toThrow('does not have this command');
    await expect(instrument.command(35, Buffer.from([12]))).rejects.toThrow('cut');
  });

  it('zero is trimmed within its limit, at the pressure that is there', async () => {
    const { simulation, instrument, pass } = await bench('tcp', { fault: 'offset', size: 0.6 });
    expect((await hart.readVariables(instrument)).value).toBeGreaterThan(0.3);
    await hart.trimZero(instrument);
    expect(Math.abs((await hart.readVariables(instrument)).value)).toBeLessThan(0.05);
    simulation.now().world.source.set(600, null);
    pass(120);
    await expect(hart.trimZero(instrument)).rejects.toThrow('too far from zero');
  });

  it('the output is trimmed while it is fixed, and then puts out 4 and 20 mA', async () => {
    const { simulation, instrument } = await bench();
    const { tested } = simulation.now().world;
    await expect(hart.trimOutputZero(instrument, 4)).rejects.toThrow('not fixed');
    for (let pass = 0; pass < 2; pass += 1) {
      await hart.fixCurrent(instrument, 4);
      await hart.trimOutputZero(instrument, tested.milliamp);
      await hart.fixCurrent(instrument, 20);
      await hart.trimOutputGain(instrument, tested.milliamp);
    }
    expect(tested.milliamp).toBeCloseTo(20, 4);
    await hart.fixCurrent(instrument, 4);
    expect(tested.milliamp).toBeCloseTo(4, 4);
    expect(statusWords((await hart.readVariables(instrument)).status)).toEqual(['its loop current is fixed']);
    await hart.fixCurrent(instrument, 0);
    expect(tested.state.held).toBeNull();
    await expect(hart.fixCurrent(instrument, 30)).rejects.toThrow('too large');
  });

  it('is read before and after, and nothing where another instrument is there by now', async () => {
    const { simulation, at, pass } = await bench('tcp', { fault: 'offset', size: 0.6 });
    const waited: number[] = [];
    const port = hartPort({ speaks: 'HART-IP', at, pollingAddress: 0 }, Date.now, (ms) => {
      waited.push(ms);
      return Promise.resolve(pass(ms / 1000));
    });
    pass(60);
    toClose.push(() => port.close());
    const change = (act: InstrumentAct, serial = '000007') => port.write?.(act, serial);
    await expect(change({ kind: 'zero trim' }, '000008')).rejects.toThrow(
      'it has the number 000007, not 000008. Nothing was changed.',
    );
    const trimmed = await change({ kind: 'zero trim' });
    expect(trimmed?.before.value).toBeGreaterThan(0.3);
    expect(Math.abs(trimmed?.after.value ?? NaN)).toBeLessThan(0.05);
    // Its damped output has followed by then.
    expect(waited).toEqual([2500]);
    expect(trimmed?.before.milliamp).toBeGreaterThan(4.04);
    expect(trimmed?.after.milliamp).toBeCloseTo(4, 2);
    const fixed = await change({ kind: 'fixed current', milliamp: 4 });
    expect([fixed?.before.isFixed, fixed?.after.isFixed, fixed?.after.milliamp]).toEqual([false, true, 4]);
    expect(await port.state()).toBe('fixed current');
    await change({ kind: 'output trim', at: 4, measured: simulation.now().world.tested.milliamp });
    expect((await change({ kind: 'fixed current', milliamp: null }))?.after.isFixed).toBe(false);
    expect(await port.state()).toBe('measuring');
    expect((await change({ kind: 'damping', seconds: 3 }))?.after.dampingS).toBe(3);
    expect((await change({ kind: 'range', lrv: 0, urv: 2, unit: 'bar' }))?.after).toMatchObject({
      urv: 200,
      unit: 'kPa',
    });
    expect((await change({ kind: 'unit', unit: 'bar' }))?.after).toMatchObject({ urv: 2, unit: 'bar' });
    expect((await change({ kind: 'transfer function', transfer: 'square-root' }))?.after.transfer).toBe(
      'square-root',
    );
    await expect(change({ kind: 'unit', unit: 'furlong' })).rejects.toThrow('no unit of pressure');
  });

  it('stays as it was changed for the next run at the same instrument', async () => {
    const { simulation, instrument } = await bench('tcp', { fault: 'offset', size: 0.6 });
    const configuration = {
      tag: 'PT-1',
      lrv: 0,
      urv: 250,
      inputUnit: 'kPa',
      dampingS: 0.5,
      transferFunction: { kind: 'linear' },
    } as const;
    simulation.takeOn(configuration);
    await hart.trimZero(instrument);
    const { shift } = simulation.now().world.tested.state;
    expect(shift).not.toBe(0);
    // A run brings its whole copy of the configuration, in an order of its own.
    simulation.takeOn({ outputLow: 4, ...configuration } as typeof configuration);
    expect(simulation.now().world.tested.state.shift).toBe(shift);
    simulation.takeOn({ ...configuration, tag: 'PT-2' });
    expect(simulation.now().world.tested.state.shift).toBe(0);
  });

  it('nothing while it is write protected', async () => {
    const { simulation, instrument } = await bench();
    const { tested } = simulation.now().world;
    tested.state = { ...tested.state, settings: { ...tested.state.settings, isProtected: true } };
    await expect(hart.writeDamping(instrument, 1)).rejects.toThrow('write protected');
    await expect(hart.trimZero(instrument)).rejects.toThrow('write protected');
  });
});

describe('an end that is hostile', () => {
  /** Begins a session as is due, and answers frames as it likes. */
  async function hostile(does: (socket: Socket, message: Message, count: number) => void) {
    let count = 0;
    const open = new Set<Socket>();
    const server = createServer((socket) => {
      open.add(socket);
      let pending: Buffer = Buffer.alloc(0);
      socket.on('error', () => undefined);
      socket.on('data', (bytes: Buffer) => {
        pending = Buffer.concat([pending, bytes]);
        for (let found = messageOf(pending); found !== null; found = messageOf(pending)) {
          pending = found.rest;
          if (found.message.about === ABOUT.begin)
            socket.write(messageBytes({ ...found.message, type: MESSAGE.answer }));
          else does(socket, found.message, (count += 1));
        }
      });
    });
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', () => resolve()));
    toClose.push(() => {
      for (const socket of open) socket.destroy();
      server.close();
    });
    const { port } = server.address() as AddressInfo;
    const at = { kind: 'tcp', host: '127.0.0.1', port } as const;
    const instrument = new hart.HartInstrument(at, 0, 150);
    toClose.push(() => instrument.close());
    return Object.assign(instrument, { at });
  }
  const device = () => new HartDevice(7, new Simulation(7, () => 0).now);
  const said = (message: Message, bytes?: Buffer): Buffer => {
    const frame =
      bytes ?? frameBytes(device().hear(frameOf(message.body)) ?? request({ kind: 'short', polling: 0 }, 0));
    return messageBytes({ ...message, type: MESSAGE.answer, body: frame });
  };
  const good = (socket: Socket, message: Message) => socket.write(said(message));

  it.each([
    ['garbage', (socket: Socket) => socket.write('GET / HTTP/1.1\r\n\r\n'), 'no message of HART-IP'],
    ['nothing', () => undefined, 'in time'],
    [
      'half an answer',
      (socket: Socket, message: Message) => socket.write(said(message).subarray(0, 12)),
      'in time',
    ],
    ['10 MB', (socket: Socket) => socket.write(Buffer.alloc(10_000_000, 255)), 'no message of HART-IP'],
    [
      'a damaged frame',
      (socket: Socket, message: Message) => socket.write(said(message, Buffer.from('0280000083', 'hex'))),
      'damaged',
    ],
    [
      'its own question',
      (socket: Socket, message: Message) => socket.write(said(message, message.body)),
      'another question',
    ],
    [
      'an error',
      (socket: Socket, message: Message) =>
        socket.write(messageBytes({ ...message, type: MESSAGE.error, body: Buffer.from([2]) })),
      'error 2',
    ],
    ['an end', (socket: Socket) => socket.destroy(), 'ended the connection'],
  ])('with %s is said, and gives no value', async (_name, does, words) => {
    const instrument = await hostile((socket, message, count) => {
      if (count === 1) good(socket, message);
      else does(socket, message);
    });
    await expect(hart.readVariables(instrument)).rejects.toThrow(words);
  });

  it('that answers late gives its answer to no other question', async () => {
    const late: (() => void)[] = [];
    const instrument = await hostile((socket, message, count) => {
      if (count === 2) late.push(() => socket.write(said(message)));
      else if (count >= 3) {
        for (const one of late.splice(0)) one();
        good(socket, message);
      } else good(socket, message);
    });
    await expect(hart.readVariables(instrument)).rejects.toThrow('in time');
    expect((await hart.readTag(instrument)).tag).toBe('SIM-1');
  });

  it('that answers with the number of another question, or for another instrument, gives none', async () => {
    const other = await hostile((socket, message, count) =>
      count === 1
        ? good(socket, message)
        : socket.write(said({ ...message, sequence: message.sequence + 1 })),
    );
    await expect(hart.readVariables(other)).rejects.toThrow('in time');
    const stranger = await hostile((socket, message, count) => {
      if (count === 1) return good(socket, message);
      const bytes = frameBytes({
        ...frameOf(message.body),
        isAnswer: true,
        address: { kind: 'long', type: 1, id: 1 },
        data: Buffer.alloc(24),
      });
      return socket.write(said(message, bytes));
    });
    await expect(hart.readVariables(stranger)).rejects.toThrow('another question');
  });

  it('that goes silent once something was changed is said to may have been changed', async () => {
    const simulation = new Simulation(7, () => 0);
    const there = new HartDevice(7, simulation.now);
    const commands: number[] = [];
    const instrument = await hostile((socket, message) => {
      const frame = frameOf(message.body);
      commands.push(frame.command);
      // It does what it is told, and never says so.
      const heard = there.hear(frame);
      if (heard !== null && !commands.includes(34)) socket.write(said(message, frameBytes(heard)));
    });
    const port = hartPort(
      { speaks: 'HART-IP', at: instrument.at, pollingAddress: 0 },
      Date.now,
      undefined,
      150,
    );
    toClose.push(() => port.close());
    await expect(port.write?.({ kind: 'damping', seconds: 3 }, '000007')).rejects.toThrow(
      'It does not answer in time. It may have been changed all the same: read it, and log by hand what was done.',
    );
    expect(simulation.now().world.tested.state.settings.dampingS).toBe(3);
  });

  it('switched off and on, is asked again who it is', async () => {
    let id = 7;
    const instrument = await hostile((socket, message) => {
      const heard = new HartDevice(id, new Simulation(7, () => 0).now).hear(frameOf(message.body));
      if (heard !== null) socket.write(said(message, frameBytes(heard)));
    });
    expect((await instrument.whoIsThere()).id).toBe(7);
    id = 8;
    await expect(hart.readVariables(instrument)).rejects.toThrow('in time');
    expect((await instrument.whoIsThere()).id).toBe(8);
  });
});
