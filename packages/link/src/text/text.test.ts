/** Text over TCP: the stand-ins through their drivers, and ends that are hostile. */
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { createServer, type Server, type Socket } from 'node:net';
import type { AddressInfo } from 'node:net';
import { setTimeout as sleep } from 'node:timers/promises';
import { afterEach, describe, expect, it } from 'vitest';
import { CONTROLLER_DRIVER, INDICATOR_DRIVER, METER_DRIVER, type Driver, type Port } from '@barys/core/port';
import { Simulation } from '../standIn';
import { TextConnection } from './connection';
import { filled, matched, numberOf } from './driver';
import { textPort } from './port';
import { startStandIns, type StandIns } from '../standIns';

const toClose: (() => unknown)[] = [];
afterEach(async () => {
  for (const close of toClose.splice(0)) await close();
});

const FAST: Driver = { ...METER_DRIVER, answerMs: 150, pauseMs: 1 };

/** An instrument that does with a connection what it likes. */
async function hostile(
  does: (socket: Socket, line: string, count: number) => void,
  port = 0,
): Promise<number> {
  let count = 0;
  const open = new Set<Socket>();
  const server: Server = createServer((socket) => {
    open.add(socket);
    socket.on('error', () => undefined);
    socket.on('data', (bytes) => {
      for (const line of bytes.toString().split('\n').filter(Boolean)) {
        count += 1;
        does(socket, line, count);
      }
    });
  });
  await new Promise<void>((resolve) => server.listen(port, '127.0.0.1', resolve));
  toClose.push(() => {
    for (const socket of open) socket.destroy();
    server.close();
  });
  return (server.address() as AddressInfo).port;
}
const portAt = (port: number, driver = FAST) => {
  const made = textPort(driver, { kind: 'tcp', host: '127.0.0.1', port });
  toClose.push(() => made.close());
  return made;
};
const answers =
  (answer: string) =>
  (socket: Socket, line: string): void => {
    if (line.endsWith('?')) socket.write(answer);
  };

async function bench(): Promise<{ standIns: StandIns; pass: (seconds: number) => void }> {
  let s = 0;
  const simulation = new Simulation(7, () => s);
  const standIns = await startStandIns(7, simulation.now);
  toClose.push(() => standIns.close());
  return { standIns, pass: (seconds) => (s += seconds) };
}

describe('the stand-ins through their drivers', () => {
  it('say who they are, are set in any unit, come to rest, hold and vent', async () => {
    const { standIns, pass } = await bench();
    const controller = portAt(standIns.controller.port, CONTROLLER_DRIVER);
    expect(await controller.identify()).toEqual({
      maker: 'Barys',
      model: 'simulated pressure controller',
      serial: 'SIM-7',
      firmware: '1',
    });
    await controller.set?.(0.5, 'bar', null);
    pass(60);
    const { value, unit, isStable, raw } = await controller.read('pressure');
    expect([value, unit, isStable]).toEqual([expect.closeTo(50, 1), 'kPa', true]);
    expect(raw).toMatch(/^[45]\.\d{6}e\+1,KPA,1$/);
    const indicator = portAt(standIns.indicator.port, INDICATOR_DRIVER);
    expect((await indicator.read('pressure')).value).toBeCloseTo(50, 1);
    const meter = portAt(standIns.meter.port, METER_DRIVER);
    const current = await meter.read('current');
    expect([current.value * 1000, current.unit]).toEqual([expect.closeTo(12, 2), 'A']);
    await controller.hold?.();
    expect(await controller.state()).toBe('holding');
    await controller.vent?.();
    pass(60);
    expect((await controller.read('pressure')).value).toBeCloseTo(0, 1);
  });

  it('go at the rate that they are told', async () => {
    const { standIns, pass } = await bench();
    const controller = portAt(standIns.controller.port, CONTROLLER_DRIVER);
    await controller.set?.(50, 'kPa', 1);
    pass(20);
    expect((await controller.read('pressure')).value).toBeCloseTo(20, -0.5);
  });

  it('complain of what they do not know, and that is said', async () => {
    const { standIns } = await bench();
    const wrong: Driver = { ...CONTROLLER_DRIVER, vent: ['OUTP:MODE FLUSH'], hold: ['STOP'] };
    const controller = portAt(standIns.controller.port, wrong);
    await expect(controller.vent?.()).rejects.toThrow('The instrument says: -222,"Illegal parameter value"');
    await expect(controller.hold?.()).rejects.toThrow('-113,"Undefined header"');
    // Said once: the next act is a new one.
    await controller.set?.(1, 'kPa', null);
  });

  it('are asked by two at once, and each gets its own answer', async () => {
    const { standIns } = await bench();
    const controller = portAt(standIns.controller.port, CONTROLLER_DRIVER);
    const all = await Promise.all([
      controller.identify(),
      controller.read('pressure'),
      controller.identify(),
      controller.read('pressure'),
    ]);
    expect(all[0]).toEqual(all[2]);
    expect((all[1] as { unit: string }).unit).toBe('kPa');
  });
});

describe('hostile ends', () => {
  it.each([
    ['garbage', '\u0000\u0001%%%\n', 'is no value'],
    ['words', 'overload\n', 'is no value'],
    ['the NaN of the standard', '9.91E+37\n', 'is no value'],
    ['NaN in letters', 'NaN\n', 'is no value'],
    ['infinity', '9.9E37\n', 'is no value'],
    ['a number beyond all numbers', '1e999\n', 'is no value'],
    ['an empty line', '\n', 'not the answer'],
    ['two answers at once', '0.0120\n0.0121\n', 'More came'],
    ['a number and then more', '0.0120\n0.01', 'More came'],
  ])('%s', async (_name, answer, words) => {
    const port = portAt(await hostile(answers(answer)));
    await expect(port.read('current')).rejects.toThrow(words);
  });

  it('half an answer', async () => {
    const port = portAt(await hostile(answers('0.01')));
    await expect(port.read('current')).rejects.toThrow('in time');
  });

  it('a unit that is not the one asked for', async () => {
    const driver = { ...FAST, reads: INDICATOR_DRIVER.reads, units: INDICATOR_DRIVER.units };
    const port = portAt(await hostile(answers('1.0,FURLONG,1\n')), driver);
    await expect(port.read('pressure')).rejects.toThrow('unit that its driver does not know');
  });

  it('the answer to the last question: it is never taken for that of the next', async () => {
    // The first answer comes after its time, when the second question has been asked.
    const port = portAt(
      await hostile((socket, line, count) => {
        if (line.endsWith('?'))
          setTimeout(() => socket.write(count < 3 ? '0.0040\n' : '0.0200\n'), count < 3 ? 200 : 10);
      }),
    );
    await expect(port.read('current')).rejects.toThrow('in time');
    expect((await port.read('current')).value).toBe(0.02);
  });

  it('a byte a second', async () => {
    const port = portAt(
      await hostile((socket, line) => {
        if (!line.endsWith('?')) return;
        const timer = setInterval(() => socket.write('1'), 60);
        socket.on('close', () => clearInterval(timer));
      }),
    );
    await expect(port.read('current')).rejects.toThrow('in time');
  });

  it('10 MB without an end of line', async () => {
    const port = portAt(await hostile(answers('9'.repeat(10_000_000))), { ...FAST, answerMs: 5000 });
    await expect(port.read('current')).rejects.toThrow('without an end of line');
  });

  it('one that talks unasked', async () => {
    const number = await hostile((socket, line) => {
      if (line === '*CLS') socket.write('0.0040\n');
      else socket.write('0.0120\n');
    });
    const port = portAt(number, { ...FAST, pauseMs: 30 });
    await expect(port.read('current')).rejects.toThrow('nobody asked for');
  });

  it('one that is switched off and on: a clear error, then values again, set up anew', async () => {
    const told: string[] = [];
    const works = (socket: Socket, line: string) => {
      told.push(line);
      if (line.endsWith('?')) socket.write('0.0120\n');
    };
    const number = await hostile(works);
    const port = portAt(number);
    expect((await port.read('current')).value).toBe(0.012);
    for (const close of toClose.splice(0, 1)) await close();
    await sleep(30);
    await expect(port.read('current')).rejects.toThrow(/ECONNREFUSED|ended the connection/);
    await hostile(works, number);
    expect((await port.read('current')).value).toBe(0.012);
    expect(told.filter((line) => line === '*CLS')).toHaveLength(2);
  });

  it('nobody at all', async () => {
    const port = portAt(1);
    await expect(port.read('current')).rejects.toThrow('ECONNREFUSED');
  });
});

/** A meter at a serial port; where it is late, its first answer comes after its time. */
async function serialMeter(...how: string[]): Promise<Port> {
  const script = new URL('../../test/serial_meter.py', import.meta.url).pathname;
  const meter = spawn('/usr/bin/python3', [script, ...how], { stdio: ['ignore', 'pipe', 'inherit'] });
  toClose.push(() => meter.kill());
  const [name] = (await once(meter.stdout, 'data')) as [Buffer];
  const path = name.toString().trim();
  const made = textPort(
    { ...METER_DRIVER, answerMs: 400 },
    { kind: 'serial', path, baud: 9600, dataBits: 8, parity: 'none', stopBits: 1 },
  );
  toClose.push(() => made.close());
  return made;
}

describe('a serial port', () => {
  it('is spoken to as an address is', async () => {
    const meter = await serialMeter();
    expect(await meter.identify()).toMatchObject({ model: 'simulated serial meter', serial: 'SER-1' });
    expect(await meter.read('current')).toMatchObject({ value: 0.001, unit: 'A', raw: '1.000000E-03' });
    expect(await meter.tryOut?.()).toEqual([
      {
        what: 'Who it is',
        asked: '*IDN?',
        answered: 'Barys,simulated serial meter,SER-1,1',
        words: 'Barys, simulated serial meter, SER-1, 1',
        isGood: true,
      },
      { what: 'current', asked: 'MEAS:CURR:DC?', answered: '2.000000E-03', words: '0.002 A', isGood: true },
      { what: 'Errors', asked: 'SYST:ERR?', answered: '0,"No error"', words: 'none', isGood: true },
    ]);
  });

  it('gives no answer of before to the next question', async () => {
    const meter = await serialMeter('late');
    await expect(meter.read('current')).rejects.toThrow('in time');
    // The first answer, of 0.001 A, comes while the port is opened anew.
    expect(await meter.read('current')).toMatchObject({ value: 0.002 });
  });

  it('that is not there is said', async () => {
    const port = textPort(FAST, {
      kind: 'serial',
      path: '/dev/tty-none',
      baud: 9600,
      dataBits: 8,
      parity: 'none',
      stopBits: 1,
    });
    await expect(port.read('current')).rejects.toThrow('No such file or directory');
  });
});

describe('a trial', () => {
  it('tells each question with what came, and what is wrong with it', async () => {
    const garbled = portAt(
      await hostile((socket, line) => {
        if (line.endsWith('?')) socket.write(line.startsWith('MEAS') ? 'about ten\n' : 'A,B,C,D\n');
      }),
    );
    expect(await garbled.tryOut?.()).toMatchObject([
      { what: 'Who it is', words: 'A, B, C, D', isGood: true },
      { what: 'current', answered: 'about ten', words: '"about ten" is no value.', isGood: false },
      { what: 'Errors', answered: 'A,B,C,D', isGood: false },
    ]);
    const nobody = portAt(1);
    const tried = await nobody.tryOut?.();
    expect(tried).toHaveLength(3);
    expect(tried?.every(({ isGood, answered }) => !isGood && answered === '')).toBe(true);
  });
});

describe('a driver', () => {
  it('reads the numbers of the standard and nothing else', () => {
    expect(['1', '+1.5', '-.25', '1E-3', ' 12.0 '].map(numberOf)).toEqual([1, 1.5, -0.25, 0.001, 12]);
    for (const text of ['', '0x10', '1,5', '1 2', '--1', 'Infinity'])
      expect(() => numberOf(text)).toThrow('no value');
    expect(matched({ answer: '(?<value>\\d+),x' }, '12,x')).toEqual({ value: '12' });
    expect(() => matched({ answer: '\\d+' }, '12 and more')).toThrow('not the answer');
    expect(filled('SOUR {value} {other}', { value: '5' })).toBe('SOUR 5 ');
  });

  it('is never asked two things at once', async () => {
    const lines: string[] = [];
    const number = await hostile((socket, line) => {
      lines.push(line);
      setTimeout(() => socket.write(`${line}\n`), 20);
    });
    const connection = new TextConnection(
      { kind: 'tcp', host: '127.0.0.1', port: number },
      { answerMs: 500, pauseMs: 1 },
    );
    toClose.push(() => connection.close());
    const both = await Promise.all(['a', 'b', 'c'].map((one) => connection.alone(() => connection.ask(one))));
    expect(both).toEqual(['a', 'b', 'c']);
  });
});
