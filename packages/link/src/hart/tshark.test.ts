/**
 * HART-IP proved by a program that knows nothing of Barys: tshark, as Debian has it, decodes a captured exchange of all commands
 * by TCP and UDP. It knows the answers of commands 0 to 3, 9, 12 to 16, 33 and 48 field by field, and those fields are compared;
 * of what is written (6, 34, 35, 40, 44 to 47) it knows frame, command, response code and status, and shows the data as it is.
 */
import { execFile, spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { setTimeout as sleep } from 'node:timers/promises';
import { promisify } from 'node:util';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Simulation } from '../standIn';
import { float, packed } from './bytes';
import { HartDevice } from './device';
import * as hart from './instrument';
import { serveHart } from './server';

const TSHARK = '/usr/bin/tshark';
const KINDS = ['tcp', 'udp'] as const;
/** Severity of an expert's note; above are warnings and errors. */
const NOTE = 0x400000;

type Fields = Readonly<Record<string, string>>;

/** All fields of a message, whatever they stand in. */
function flat(layer: unknown, into: Record<string, string> = {}): Fields {
  if (typeof layer !== 'object' || layer === null) return into;
  for (const [name, value] of Object.entries(layer))
    if (typeof value === 'string') into[name.replace(/^hart_ip\.(pt\.(rsp\.)?)?/, '')] = value;
    else flat(value, into);
  return into;
}

const hex = (text: string) => Buffer.from(text, 'hex');
const WRITES: readonly (readonly [command: number, data: Buffer])[] = [
  [34, float(2)],
  [35, Buffer.concat([Buffer.from([12]), float(160), float(0)])],
  [44, hex('0c')],
  [47, hex('01')],
  [40, float(4)],
  [45, float(4.001)],
  [40, float(20)],
  [46, float(20.002)],
  [40, float(0)],
  [43, hex('')],
  [37, hex('')],
  [38, hex('')],
  [41, hex('')],
  [42, hex('')],
  [6, hex('00')],
  [18, Buffer.concat([packed('PT-1', 8), packed('BOILER HOUSE', 16), Buffer.from([29, 11, 126])])],
];

let layers: { readonly kind: string; readonly fields: Fields }[] = [];
let folder = '';

async function exchange(kind: (typeof KINDS)[number], port: number): Promise<void> {
  const instrument = new hart.HartInstrument({ kind, host: '127.0.0.1', port }, 0, 2000);
  for (const command of [0, 1, 2, 3]) await instrument.command(command);
  await instrument.command(9, Buffer.from([0, 1, 244, 245]));
  for (const command of [12, 13, 14, 15, 16]) await instrument.command(command);
  await instrument.command(33, Buffer.from([0, 1, 244, 245]));
  await instrument.command(48);
  for (const [command, data] of WRITES) await instrument.command(command, data);
  // At no pressure the upper end of a range from zero would leave no span.
  await expect(instrument.command(36)).rejects.toThrow('too small');
  await hart.writeTransfer(instrument, 'linear');
  instrument.close();
}

beforeAll(async () => {
  folder = mkdtempSync(`${tmpdir()}/hart-`);
  const file = `${folder}/exchange.pcapng`;
  // An instrument for each, as it came out of the box.
  const servers = await Promise.all(
    KINDS.map(() => serveHart(new HartDevice(7, new Simulation(7, () => 0).now))),
  );
  const ports = servers.map(({ port }) => port);
  const capture = spawn(
    TSHARK,
    ['-i', 'lo', '-w', file, '-f', ports.map((port) => `port ${port}`).join(' or ')],
    {
      stdio: ['ignore', 'ignore', 'pipe'],
    },
  );
  let said = '';
  capture.stderr.setEncoding('utf8').on('data', (text: string) => (said += text));
  const ended = once(capture, 'exit');
  for (let waited = 0; !said.includes('Capturing on'); waited += 1) {
    if (waited > 100 || capture.exitCode !== null) throw new Error(`tshark does not capture: ${said}`);
    await sleep(100);
  }
  await sleep(500);
  for (const [place, kind] of KINDS.entries()) await exchange(kind, ports[place] ?? 0);
  // What was sent last is on its way to the file.
  await sleep(1500);
  capture.kill('SIGINT');
  await ended;
  const as = KINDS.flatMap((kind, place) => ['-d', `${kind}.port==${ports[place]},hart_ip`]);
  const { stdout } = await promisify(execFile)(TSHARK, ['-r', file, ...as, '-Y', 'hart_ip', '-T', 'json'], {
    maxBuffer: 64 * 1024 * 1024,
  });
  await Promise.all(servers.map((server) => server.close()));
  const packets = JSON.parse(stdout) as { _source: { layers: Record<string, unknown> } }[];
  layers = packets.map(({ _source: { layers: found } }) => ({
    kind: 'tcp' in found ? 'tcp' : 'udp',
    fields: flat(found['hart_ip']),
  }));
}, 60_000);
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const answers = (kind: string) =>
  layers.filter(
    (one) => one.kind === kind && one.fields['message_type'] === '1' && one.fields['message_id'] === '3',
  );

describe.each(KINDS)('an exchange by %s', (kind) => {
  const answer = (command: number): Fields =>
    answers(kind).find(({ fields }) => fields['command'] === String(command))?.fields ?? {};

  it('is decoded without an error, each request and its answer', () => {
    for (const { fields } of layers) {
      expect(Object.keys(fields).filter((name) => /malformed|unexpected|unknown/.test(name))).toEqual([]);
      expect(Number(fields['_ws.expert.severity'] ?? 0)).toBeLessThanOrEqual(NOTE);
      expect(fields['version']).toBe('1');
    }
    const commands = answers(kind).map(({ fields }) => Number(fields['command']));
    expect([...new Set(commands)].sort((a, b) => a - b)).toEqual([
      0, 1, 2, 3, 6, 9, 12, 13, 14, 15, 16, 18, 33, 34, 35, 36, 37, 38, 40, 41, 42, 43, 44, 45, 46, 47, 48,
    ]);
    expect(
      answers(kind)
        .map(({ fields }) => fields['response_code'])
        .filter((code) => code !== '0'),
    ).toEqual(['4']);
    const sent = layers.filter(
      (one) => one.kind === kind && one.fields['message_type'] === '0' && one.fields['message_id'] === '3',
    );
    expect(sent.map(({ fields }) => fields['transaction_id'])).toEqual(
      answers(kind).map(({ fields }) => fields['transaction_id']),
    );
  });

  it('begins with a session of a primary master', () => {
    const begun = layers.filter((one) => one.kind === kind && one.fields['message_id'] === '0');
    expect(
      begun.map(({ fields }) => [
        fields['message_type'],
        fields['session_init.master_type'],
        fields['session_init.inactivity_close_timer'],
      ]),
    ).toEqual([
      ['0', '1', '60000'],
      ['1', '1', '60000'],
    ]);
  });

  it('says who it is: command 0', () => {
    expect(answer(0)).toMatchObject({
      expansion_code: '254',
      expanded_device_type: '0x39f9',
      req_min_preambles: '5',
      hart_univ_rev: '7',
      device_rev: '1',
      software_rev: '1',
      hardrev_and_physical_signal: '0x08',
      device_id: '00:00:07',
      device_variables: '3',
      manufacturer_Id: '249',
      device_profile: '1',
    });
  });

  it('gives variables: commands 1, 2, 3, 9 and 33', () => {
    const value = Number(answer(1)['pv']);
    expect(answer(1)['pv_units']).toBe('12');
    expect(Math.abs(value)).toBeLessThan(0.1);
    expect(Number(answer(2)['pv_loop_current'])).toBeCloseTo(4 + 0.16 * value, 2);
    expect(Number(answer(2)['pv_percent_range'])).toBeCloseTo(value, 2);
    expect(answer(3)).toMatchObject({
      pv_units: '12',
      sv_units: '32',
      sv: '20',
      tv_units: '32',
      tv: '24',
      qv_units: '58',
    });
    expect(Number(answer(3)['pv'])).toBeCloseTo(value, 3);
    expect(Number(answer(3)['qv'])).toBeGreaterThan(10);
    for (const command of [9, 33])
      expect(answer(command)).toMatchObject({
        slot0_device_var: '0',
        slot0_units: '12',
        slot1_units: '32',
        slot1_device_var_value: '20',
        slot2_units: '57',
        slot3_units: '39',
      });
    expect(answer(9)).toMatchObject({
      slot0_device_var_classification: '65',
      slot0_device_var_status: '0xc0',
    });
  });

  it('gives texts, limits, output and status: commands 12 to 16 and 48', () => {
    expect(answer(12)['message']?.trim()).toBe('A SIMULATED TRANSMITTER');
    expect(answer(13)).toMatchObject({ day: '1', month: '1', year: '126' });
    expect([answer(13)['tag']?.trim(), answer(13)['descriptor']?.trim()]).toEqual(['SIM-1', 'SIMULATED']);
    expect(answer(14)).toMatchObject({
      transducer_serail_number: '00:00:07',
      upper_transducer_limit: '200',
      lower_transducer_limit: '-200',
      minimum_span: '2',
    });
    expect(answer(15)).toMatchObject({
      pv_alarm_selection_code: '0x00',
      pv_transfer_function_code: '0x00',
      pv_upper_and_lower_range_values_units: '0x0c',
      pv_upper_range_value: '100',
      pv_lower_range_value: '0',
      pv_damping_value: '0.5',
      write_protect_code: '0x00',
    });
    expect(answer(16)['final_assembly_number']).toBe('00:00:00');
    expect(answer(48)).toMatchObject({
      device_op_mode: '0',
      analog_channel_saturated: '0',
      analog_channel_fixed: '0',
    });
  });

  it('writes, and says by its status that it was changed', () => {
    for (const [command, data] of WRITES.filter(([, one]) => one.length > 1).slice(0, 2)) {
      expect(answer(command)['payload']?.replaceAll(':', '')).toBe(data.toString('hex'));
      expect(Number(answer(command)['device_status']) & 0x40).toBe(0x40);
    }
    // Fixed at 4 mA.
    expect(Number(answer(40)['device_status']) & 0x08).toBe(0x08);
  });
});
