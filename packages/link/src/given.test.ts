import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { createInterface } from 'node:readline';
import { expect, it } from 'vitest';
import { faultOf, seedOf, speedOf } from './given';
import { INDICATOR_DRIVER } from '@barys/core/port';
import { textPort } from './text/port';

it('reads seeds, speeds and faults, and says in words what is wrong with them', () => {
  expect([seedOf('7'), speedOf('0.5')]).toEqual([7, 0.5]);
  expect(faultOf('tilt')).toEqual({ fault: 'tilt' });
  expect(faultOf('offset=-0.3')).toEqual({ fault: 'offset', size: -0.3 });
  for (const text of ['', '1.5', 'x']) expect(() => seedOf(text)).toThrow('whole number');
  for (const text of ['0', '-1', '101', 'x']) expect(() => speedOf(text)).toThrow('at most 100');
  expect(() => faultOf('flood')).toThrow('There is no fault "flood". There are: offset, gain,');
  expect(() => faultOf('tilt=much')).toThrow('is counted in % of span');
});

const STAND_INS = new URL('../../../scripts/stand-ins.mjs', import.meta.url).pathname;
const started = (...args: string[]) =>
  spawn(process.execPath, [STAND_INS, ...args], { stdio: ['ignore', 'pipe', 'pipe'] });

it('starts stand-ins that anybody can ask, and stops them', async () => {
  const child = started('--seed', '3', '--fault', 'offset=2');
  const lines: string[] = [];
  for await (const line of createInterface({ input: child.stdout })) if (lines.push(line) === 3) break;
  expect(lines.map((line) => line.split(':')[0])).toEqual(['controller', 'indicator', 'meter']);
  const port = textPort(INDICATOR_DRIVER, {
    kind: 'tcp',
    host: '127.0.0.1',
    port: Number(lines[1]?.split(':').at(-1)),
  });
  expect((await port.identify()).serial).toBe('SIM-3');
  expect((await port.read('pressure')).unit).toBe('kPa');
  await port.close();
  child.kill('SIGTERM');
  expect((await once(child, 'exit'))[0]).toBe(0);
});

it('says what a fault is not, and starts nothing', async () => {
  const child = started('--fault', 'flood');
  let said = '';
  child.stderr.on('data', (chunk: Buffer) => (said += chunk.toString()));
  expect((await once(child, 'close'))[0]).toBe(1);
  expect(said).toContain('There is no fault "flood"');
});
