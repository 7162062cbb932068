/** How references are reached: who enters it, what is taken, and what a link is told. */
import { CONTROLLER_DRIVER, INDICATOR_DRIVER, METER_DRIVER, type Wire } from '@barys/core/port';
import { beforeAll, describe, expect, it } from 'vitest';
import {
  addressOf,
  askForSetup,
  askForTrial,
  benchOfToken,
  driverSchema,
  dropAddress,
  endsOf,
  keepAddress,
  keepAnswer,
  keepValues,
  requestById,
  startAutomatic,
  takeRequests,
  wireSchema,
  type Bench,
} from '../src/benches';
import { makeToken } from '../src/people';
import { changeStandard, findStandard } from '../src/registers';
import { jobAtAsFound, openWorks } from './works';

const { base, works } = await openWorks();
const inTx = base.app.transaction.bind(base.app);
const { administrator } = works;
const now = administrator.at;
const later = (seconds: number) => new Date(now.getTime() + seconds * 1000);
const wireAt = (port: number, driver = CONTROLLER_DRIVER): Wire => ({
  speaks: 'text',
  at: { kind: 'tcp', host: '10.0.0.7', port },
  driver,
});
let bench: Bench;
let controller = 0;
let meter = 0;
const keep = (referenceId: number, revision: number | null, wire: Wire, actor = administrator) =>
  inTx((tx) => keepAddress(tx, actor, { referenceId, revision }, { bench: bench.id, wire }));

beforeAll(async () => {
  const token = await makeToken(base.app, administrator, { name: 'Bench A', scope: 'link', days: 30 });
  const found = await benchOfToken(base.app, token, now);
  if (found === null) throw new Error('no bench');
  bench = found;
  controller = (await findStandard(base.app, 'PC-1')).id;
  meter = (await findStandard(base.app, 'DM-1')).id;
});

describe('an address', () => {
  it('is entered by an administrator, changed by revision, and is all that the link is told', async () => {
    await expect(keep(controller, null, wireAt(5025), works.technician)).rejects.toThrow('may not do this');
    expect(await endsOf(base.app, bench)).toEqual([]);
    await keep(controller, null, wireAt(5025));
    expect(await endsOf(base.app, bench)).toEqual([{ device: 'PC-1', wire: wireAt(5025) }]);
    await expect(keep(controller, null, wireAt(5026))).rejects.toThrow('Somebody else');
    await keep(controller, 1, wireAt(5026));
    await expect(keep(controller, 1, wireAt(5027))).rejects.toThrow('Somebody else');
    expect(await addressOf(base.app, controller)).toMatchObject({ tag: 'PC-1', bench, revision: 2 });
    await expect(keep(meter, null, wireAt(5026, METER_DRIVER))).rejects.toThrow(
      'There is already a reference at this address of Bench A.',
    );
    await keep(meter, null, wireAt(5027, METER_DRIVER));
    const acts = await base.app.query<{ act: string }>(
      `select act from audit_entry where act like '%address' order by id`,
    );
    expect(acts.map(({ act }) => act)).toEqual(['add address', 'change address', 'add address']);
  });

  it('of what is retired is left alone', async () => {
    const { id, revision, description, serial, location } = await findStandard(base.app, 'DM-1');
    const change = (state: 'retired' | 'in use', of: number) =>
      inTx((tx) =>
        changeStandard(
          tx,
          administrator,
          { id, revision: of, tag: 'DM-1' },
          { description, serial, location, state },
        ),
      );
    await change('retired', revision);
    expect((await endsOf(base.app, bench)).map(({ device }) => device)).toEqual(['PC-1']);
    await change('in use', revision + 1);
  });

  it('stays as it is while its bench is in a run', async () => {
    const { runId } = await jobAtAsFound(base.app, works.technician);
    const value = {
      device: 'PC-1',
      channel: 'pressure' as const,
      model: 'a calibrator',
      serial: '1',
      value: 1,
      unit: 'bar',
      raw: '',
      isStable: true,
      state: '',
      trouble: '',
      at: now,
    };
    await inTx((tx) => keepValues(tx, bench, [value, { ...value, device: 'DM-1', channel: 'current' }], now));
    await inTx((tx) =>
      startAutomatic(tx, works.technician, runId, {
        bench: bench.id,
        reference: 'PC-1',
        output: 'DM-1',
        digital: null,
      }),
    );
    await expect(keep(controller, 2, wireAt(6000))).rejects.toThrow('in another run');
    await expect(
      inTx((tx) => dropAddress(tx, administrator, { referenceId: controller, revision: 2 })),
    ).rejects.toThrow('in another run');
    await base.owner.query(`update automatic_run set ended_at = $1, ended_why = 'test'`, [now]);
  });

  it('is tried by the link when an administrator asks, and is answered once', async () => {
    await expect(inTx((tx) => askForTrial(tx, works.technician, controller))).rejects.toThrow('may not');
    const id = await inTx((tx) => askForTrial(tx, administrator, controller));
    const open = () => inTx((tx) => takeRequests(tx, bench, now));
    expect(await open()).toEqual([{ id, device: 'PC-1', request: { kind: 'trial' } }]);
    const trouble = (words: string) => ({ id, answer: { kind: 'trouble' as const, words } });
    await inTx((tx) => keepAnswer(tx, { ...bench, id: bench.id + 1 }, trouble('of another')));
    expect(await requestById(base.app, id, now)).toEqual({ id, bench, answer: null, isLost: false });
    expect(await requestById(base.app, id, later(61))).toMatchObject({ isLost: true });
    await inTx((tx) => keepAnswer(tx, bench, trouble('deaf')));
    await inTx((tx) => keepAnswer(tx, bench, trouble('late')));
    expect((await requestById(base.app, id, now))?.answer).toEqual({ kind: 'trouble', words: 'deaf' });
    expect(await open()).toEqual([]);
    expect(await requestById(base.app, id + 1, now)).toBeNull();
  });

  it('of a transmitter is asked for its settings by who may work, with what has to be set', async () => {
    const value = {
      channel: 'digital value' as const,
      model: 'm',
      serial: '',
      value: 1,
      unit: 'kPa',
      raw: '',
      isStable: null,
      state: '',
      trouble: '',
      at: now,
    };
    await inTx((tx) => keepValues(tx, bench, [{ ...value, device: 'Transmitter' }], later(1)));
    const wanted = (device: string, actor = works.technician) =>
      inTx((tx) => askForSetup(tx, actor, 'PT-1', { bench: bench.id, device }));
    await expect(wanted('Transmitter', works.auditor)).rejects.toThrow('may not do this');
    await expect(wanted('Nobody')).rejects.toThrow('There is no instrument at a bench Nobody.');
    const id = await wanted('Transmitter');
    expect(await inTx((tx) => takeRequests(tx, bench, now))).toMatchObject([
      {
        id,
        device: 'Transmitter',
        request: { kind: 'set-up', configuration: { tag: 'PT-1', lrv: 0, urv: 6, inputUnit: 'bar' } },
      },
    ]);
    // It is told once, and nobody waits for what was asked a while ago.
    expect(await inTx((tx) => takeRequests(tx, bench, now))).toEqual([]);
    await wanted('Transmitter');
    expect(await inTx((tx) => takeRequests(tx, bench, later(61)))).toEqual([]);
  });

  it('is removed once', async () => {
    const drop = () => inTx((tx) => dropAddress(tx, administrator, { referenceId: controller, revision: 2 }));
    await drop();
    await expect(drop()).rejects.toThrow('Somebody else');
    expect((await endsOf(base.app, bench)).map(({ device }) => device)).toEqual(['DM-1']);
    await expect(inTx((tx) => askForTrial(tx, administrator, controller))).rejects.toThrow(
      'There is no address',
    );
  });
});

describe('what is entered', () => {
  const fault = (more: object) => {
    const found = driverSchema.safeParse({ ...CONTROLLER_DRIVER, ...more });
    return found.error?.issues.map(({ message }) => message).join(' ') ?? '';
  };

  it('is a driver that can read, and lets go of what it sets', () => {
    for (const driver of [CONTROLLER_DRIVER, INDICATOR_DRIVER, METER_DRIVER])
      expect(driverSchema.parse(driver)).toEqual(driver);
    expect(fault({ units: [{ theirs: 'KPA', ours: 'furlong' }] })).toContain('no unit');
    expect(fault({ reads: {} })).toContain('at least one');
    const read = (answer: string, unit: string | null = 'A') => ({
      reads: { current: { ask: 'A?', answer, unit } },
    });
    expect(fault(read('('))).toContain('no regular expression');
    expect(fault(read('(?<value>([0-9]+)+)x'))).toContain('repeats what repeats');
    expect(fault(read('.*'))).toContain('(?<value>');
    expect(fault(read('(?<value>.*)', null))).toContain('choose the one');
    expect(fault({ begin: ['*CLS\n*RST'] })).toContain('plain characters');
    expect(fault({ set: ['PRES 1'] })).toContain('{value}');
    expect(fault({ vent: null })).toContain('nothing is left under pressure');
    expect(fault({ hold: null })).toContain('nothing is left under pressure');
    expect(fault({ set: null, hold: null, vent: null })).toBe('');
  });

  it('is an address of the network or a serial port, and nothing else', () => {
    const isTaken = (at: object) => wireSchema.safeParse({ ...wireAt(1), at }).success;
    expect(isTaken({ kind: 'tcp', host: 'bench-7.works.example', port: 65_535 })).toBe(true);
    expect(isTaken({ kind: 'tcp', host: 'fe80::1', port: 1 })).toBe(true);
    for (const [host, port] of [
      ['', 1],
      ['a b', 1],
      ['http://a', 1],
      ['a', 0],
      ['a', 65_536],
      ['a', 1.5],
    ] as const)
      expect(isTaken({ kind: 'tcp', host, port }), host).toBe(false);
    const serial = {
      kind: 'serial',
      path: '/dev/ttyUSB0',
      baud: 9600,
      dataBits: 8,
      parity: 'none',
      stopBits: 1,
    };
    expect(isTaken(serial)).toBe(true);
    expect(isTaken({ ...serial, path: 'COM12' })).toBe(true);
    expect(isTaken({ ...serial, path: '/etc/passwd' })).toBe(false);
    expect(isTaken({ ...serial, path: '/dev/../etc/passwd' })).toBe(false);
    expect(isTaken({ ...serial, dataBits: 6 })).toBe(false);
  });
});
