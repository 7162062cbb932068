import { describe, expect, it } from 'vitest';
import { accuracyAt } from '../src/runs/accuracy';
import { addConfiguration } from '../src/registers/configurations';
import { addInstrument, findInstrument, instrumentsDueNext } from '../src/registers/instruments';
import { findSite } from '../src/people/site';
import { listPeople } from '../src/people/people';
import { listReferences, referencesDueBy } from '../src/registers/references';
import { rankReferences } from '../src/runs/fit';
import { migrate, NewerDatabaseError } from '../src/db/migrate';
import { throwaway } from './throwaway';
import { entry, openWorks, RANGE, TAG, TODAY } from './works';

const { base, works } = await openWorks();

describe('configurations', () => {
  it('are versions; the newest is in force and the older ones stay', async () => {
    const { id } = await findInstrument(base.app, { tag: TAG });
    await addConfiguration(base.owner, works.technician, id, { ...RANGE, urv: 10, reason: 'range change' });
    expect((await findInstrument(base.app, { tag: TAG })).configuration).toMatchObject({
      version: 2,
      urv: 10,
      reason: 'range change',
      madeBy: 'Technician A',
    });
    const versions = await base.app.query('select version from configuration where instrument_id = $1', [id]);
    expect(versions).toHaveLength(2);
    await addConfiguration(base.owner, works.technician, id, { ...RANGE, reason: 'back' });
  });

  it.each([
    [{ urv: 17 }, 'reaches outside the limits of the body Cell 16, -1 to 16 bar'],
    [{ lrv: -1.1 }, 'reaches outside the limits'],
    [{ urv: 0.7 }, 'smaller than the least span'],
    [{ inputUnit: 'psi', urv: 240 } as const, 'reaches outside the limits'],
  ])('that do not fit the body are refused: %j', async (change, words) => {
    const { id } = await findInstrument(base.app, { tag: TAG });
    await expect(addConfiguration(base.owner, works.technician, id, { ...RANGE, ...change })).rejects.toThrow(
      words,
    );
  });

  it('need an instrument and its body', async () => {
    await expect(addConfiguration(base.owner, works.technician, 999, RANGE)).rejects.toThrow(
      'no instrument 999',
    );
    await expect(
      addInstrument(base.owner, works.technician, entry({ bodyId: 999, tag: 'PT-2' }), RANGE),
    ).rejects.toThrow('There is no body 999');
  });
});

describe('references', () => {
  it('are ranked by accuracy ratio, those that cannot be used last with the reason', async () => {
    const instrument = await findInstrument(base.app, { tag: TAG });
    const fits = rankReferences(await listReferences(base.app), instrument, 'input', { today: TODAY });
    expect(fits.map(({ reference }) => reference.tag)).toEqual(['PC-1', 'PC-OLD', 'PC-COARSE', 'PC-SHORT']);
    // 0.25 % of 6 bar is 0.015 bar; 0.02 % of 6 bar + 0.01 % of 21 bar is 0.0033 bar.
    expect(fits[0]?.ratio).toBeCloseTo(0.015 / 0.0033, 12);
    expect(fits.map(({ unfit }) => unfit === null)).toEqual([true, false, false, false]);
    expect(fits[1]?.unfit).toBe('its certificate ran out on 3 May 2026');
    expect(fits[2]?.unfit).toContain('not the 4 : 1 that the procedure asks for');
    expect(fits[3]).toMatchObject({ ratio: null });
    expect(fits[3]?.unfit).toContain('−1 to 3 bar');
  });

  it('may be used on the day they are due, and are listed when they come due', async () => {
    const due = await referencesDueBy(base.app, '2026-05-03');
    expect(due.map(({ tag }) => tag)).toEqual(['PC-OLD']);
    const [meter] = (await listReferences(base.app)).filter(({ tag }) => tag === 'DM-1');
    expect(meter && accuracyAt(meter, 20, { today: TODAY })).toBeCloseTo(0.004 + 0.0024, 12);
  });
});

it('instruments and people are listed, and an unknown tag is said', async () => {
  expect((await instrumentsDueNext(base.app, 10)).map(({ tag }) => tag)).toEqual([TAG]);
  expect((await listPeople(base.app)).map(({ role }) => role)).toEqual([
    'administrator',
    'technician',
    'technician',
    'auditor',
  ]);
  await expect(findInstrument(base.app, { tag: "' or 1=1 --" })).rejects.toThrow('There is no instrument');
  expect(await findSite(base.app)).toBeNull();
});

describe('migrations', () => {
  it('are applied once, in order', async () => {
    const fresh = await throwaway('template0');
    try {
      const applied = await migrate(fresh.ownerUrl);
      expect(applied).toEqual([...applied].sort());
      expect(applied.length).toBeGreaterThanOrEqual(4);
      expect(await migrate(fresh.ownerUrl)).toEqual([]);
    } finally {
      await fresh.drop();
    }
  });

  it('leave a database alone that is newer than the code', async () => {
    await base.owner.query(
      `insert into schema_migration (name, run_on) values ('9999_from-the-future', now())`,
    );
    await expect(migrate(base.ownerUrl)).rejects.toThrow(NewerDatabaseError);
    await expect(migrate(base.ownerUrl)).rejects.toThrow('9999_from-the-future');
    await base.owner.query(`delete from schema_migration where name = '9999_from-the-future'`);
  });
});
