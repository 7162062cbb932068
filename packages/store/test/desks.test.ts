import { randomUUID } from 'node:crypto';
import { beforeEach, describe, expect, it } from 'vitest';
import { attach, attachmentsOfJob, fileOfAttachment } from '../src/jobs/attachments';
import { keepMark } from '../src/runs/marks';
import { saveReading, saveReadings } from '../src/runs/reading';
import { sitDown } from '../src/jobs/desk';
import type { Actor } from '../src/people/actor';
import { closeOpenJobs, jobAtAsFound, openWorks, reading } from './works';

const { base, works } = await openWorks();
let jobId: number;
let runId: number;

beforeEach(async () => {
  await closeOpenJobs(base.owner);
  ({ jobId, runId } = await jobAtAsFound(base.app, works.technician));
});

const MINE = randomUUID();
const OTHER = randomUUID();
const sit = (actor: Actor, desk: string, isTakingOver = false) =>
  sitDown(base.app, actor, jobId, { desk, isTakingOver });
const later = (actor: Actor, minutes: number): Actor => ({
  ...actor,
  at: new Date(actor.at.valueOf() + minutes * 60_000),
});

describe('a desk', () => {
  it('is free until somebody sits down, and is asked for with a word after that', async () => {
    expect(await sit(works.technician, MINE)).toMatchObject({ isMine: true, by: 'Technician A' });
    expect(await sit(later(works.colleague, 1), OTHER)).toEqual({
      isMine: false,
      by: 'Technician A',
      since: works.technician.at,
    });
    expect(await sit(later(works.colleague, 1), OTHER, true)).toMatchObject({
      isMine: true,
      by: 'Technician B',
    });
    expect(await sit(later(works.technician, 2), MINE)).toMatchObject({ isMine: false, by: 'Technician B' });
    const [entry] = await base.app.query(
      `select detail from audit_entry where act = 'take job over' order by id desc limit 1`,
    );
    expect(entry).toEqual({ detail: { from: 'Technician A' } });
  });

  it('is the same person’s at another browser only where that is said', async () => {
    await sit(works.technician, MINE);
    expect(await sit(later(works.technician, 1), OTHER)).toMatchObject({ isMine: false });
  });

  it('is free again when its browser has not been heard of for ten minutes', async () => {
    await sit(works.technician, MINE);
    await sit(later(works.technician, 5), MINE);
    expect((await sit(later(works.colleague, 14), OTHER)).isMine).toBe(false);
    expect((await sit(later(works.colleague, 15), OTHER)).isMine).toBe(true);
  });

  it('is not written again by a browser that only looks, until it would be taken for gone', async () => {
    const seenAt = async () =>
      (await base.app.query<{ at: Date }>('select seen_at as at from desk where job_id = $1', [jobId]))[0]
        ?.at;
    await sit(works.technician, MINE);
    const first = await seenAt();
    expect((await sit(later(works.technician, 3), MINE)).isMine).toBe(true);
    expect(await seenAt()).toEqual(first);
    await sit(later(works.technician, 4), MINE);
    expect(await seenAt()).toEqual(later(works.technician, 4).at);
  });

  it('is nobody’s who may not work', async () => {
    await expect(sit(works.auditor, MINE)).rejects.toThrow('may not do this');
    await expect(
      sitDown(base.app, works.technician, 999, { desk: MINE, isTakingOver: false }),
    ).rejects.toThrow('no job 999');
  });

  it('lets in what comes from it, and what a program sends; nothing of a browser that lost it', async () => {
    await sit(works.technician, MINE);
    await sit(works.colleague, OTHER, true);
    const lost = { ...reading(1, '4.001'), desk: MINE };
    await expect(saveReading(base.app, works.technician, runId, lost)).rejects.toThrow(
      'Technician B has taken this job over',
    );
    const mark = {
      position: 1,
      clientKey: randomUUID(),
      kind: 'overshot' as const,
      appliedText: '',
      outputText: '',
      remark: '',
    };
    await expect(keepMark(base.app, works.technician, runId, { ...mark, desk: MINE })).rejects.toThrow(
      'has taken this job over',
    );
    await saveReading(base.app, works.colleague, runId, { ...reading(1, '4.002'), desk: OTHER });
    await saveReading(base.app, works.colleague, runId, reading(2, '8.002'));
    // Sent before the other took over and asked for again: it is kept, so it is answered.
    const sent = { ...reading(3, '12.002'), desk: OTHER };
    const first = await saveReading(base.app, works.colleague, runId, sent);
    await sit(works.technician, MINE, true);
    expect((await saveReading(base.app, works.colleague, runId, sent)).id).toBe(first.id);
  });
});

describe('a pasted column', () => {
  const column = (...lines: [position: number, output: string][]) =>
    lines.map(([position, output]) => reading(position, output));
  const enter = (readings: ReturnType<typeof column>) =>
    base.app.transaction((tx) => saveReadings(tx, works.technician, runId, readings));
  const kept = () =>
    base.app.query<{ position: number; outputText: string }>(
      `select position, output_text as "outputText" from reading where run_id = $1 order by position`,
      [runId],
    );

  it('is kept in its order, and sent twice it is kept once', async () => {
    const readings = column([1, '4.001'], [2, '8.002'], [3, '12.003']);
    const first = await enter(readings);
    expect((await enter(readings)).map(({ id }) => id)).toEqual(first.map(({ id }) => id));
    expect((await kept()).map(({ outputText }) => outputText)).toEqual(['4.001', '8.002', '12.003']);
  });

  it('is not kept at all where one line of it cannot be', async () => {
    await enter(column([2, '8.002']));
    await expect(enter(column([1, '4.001'], [2, '8.5']))).rejects.toThrow('8.002');
    await expect(enter(column([1, '4.001'], [99, '8.5']))).rejects.toThrow('99');
    expect(await kept()).toEqual([{ position: 2, outputText: '8.002' }]);
  });
});

describe('notes and photographs', () => {
  const png = Buffer.from([0x89, 0x50, 0x4e, 0x47, 1, 2, 3]);

  it('stay with the job at the stage where they were made', async () => {
    await attach(base.app, works.technician, jobId, { remark: ' cover was wet ', file: null });
    await attach(base.app, works.technician, jobId, { remark: '', file: { name: 'cover.png', bytes: png } });
    const [note, picture] = await attachmentsOfJob(base.app, jobId);
    expect(note).toMatchObject({ stage: 'as-found', remark: 'cover was wet', fileName: '', mediaType: '' });
    expect(picture).toMatchObject({ fileName: 'cover.png', mediaType: 'image/png', addedBy: 'Technician A' });
    expect((await fileOfAttachment(base.app, jobId, picture?.id ?? 0)).bytes).toEqual(png);
    await expect(fileOfAttachment(base.app, jobId, note?.id ?? 0)).rejects.toThrow('no photograph');
    await expect(fileOfAttachment(base.app, jobId + 1, picture?.id ?? 0)).rejects.toThrow('no photograph');
  });

  it('may be of a point of one of the job’s runs, and of no other', async () => {
    const entry = { remark: 'screen fogged', file: null };
    await attach(base.app, works.technician, jobId, { ...entry, point: { runId, position: 3 } });
    expect(await attachmentsOfJob(base.app, jobId)).toMatchObject([
      { remark: 'screen fogged', stage: 'as-found', runId, position: 3 },
    ]);
    const attachTo = (point: { runId: number; position: number }) =>
      attach(base.app, works.technician, jobId, { ...entry, point });
    await expect(attachTo({ runId, position: 99 })).rejects.toThrow('no point 99');
    await expect(attachTo({ runId: runId - 1, position: 3 })).rejects.toThrow(`no run ${runId - 1}`);
    expect(await attachmentsOfJob(base.app, jobId)).toHaveLength(1);
  });

  it.each([
    [{ remark: ' ', file: null }, 'neither a note nor a photograph'],
    [
      { remark: '', file: { name: 'x.png', bytes: Buffer.from('<svg onload=x>') } },
      'no JPEG, PNG, WebP or PDF',
    ],
    [
      { remark: '', file: { name: 'big.png', bytes: Buffer.concat([png, Buffer.alloc(10 * 1024 * 1024)]) } },
      'larger than 10 MB',
    ],
  ])('are refused where they are %#', async (entry, words) => {
    await expect(attach(base.app, works.technician, jobId, entry)).rejects.toThrow(words);
  });

  it('are added at review by those whose work it is and those who may review it, and by nobody else', async () => {
    const entry = { remark: 'x', file: null };
    await base.owner.query(
      `update job set stage = 'review', signed_by = $2, signed_at = now(), as_found_verdict = 'within',
         as_left_verdict = 'within' where id = $1`,
      [jobId, works.technician.personId],
    );
    await attach(base.app, works.technician, jobId, entry);
    await attach(base.app, works.colleague, jobId, entry);
    const asRole = async (role: string): Promise<void> => {
      await base.owner.query('update person set role = $2 where id = $1', [works.colleague.personId, role]);
    };
    await asRole('reviewer');
    await attach(base.app, works.colleague, jobId, entry);
    await asRole('planner');
    await expect(attach(base.app, works.colleague, jobId, entry)).rejects.toThrow('may not do this');
    await asRole('technician');
    await expect(attach(base.app, works.auditor, jobId, entry)).rejects.toThrow('may not do this');
  });

  it('are added by those who work, and to an open job', async () => {
    const entry = { remark: 'x', file: null };
    await expect(attach(base.app, works.auditor, jobId, entry)).rejects.toThrow('may not do this');
    await base.owner.query(
      `update job set stage = 'closed', signed_by = opened_by, signed_at = now(), as_found_verdict = 'within',
         as_left_verdict = 'within' where id = $1`,
      [jobId],
    );
    await expect(attach(base.app, works.technician, jobId, entry)).rejects.toThrow('at closed');
    await expect(base.owner.query('delete from attachment')).rejects.toThrow('only ever added to');
  });
});

describe('an entry of somebody who is signed in', () => {
  const signedIn = (actor: Actor): Actor => ({ ...actor, via: 'session' });

  it('says which browser it comes from, and gives no number of somebody else', async () => {
    await sit(works.technician, MINE);
    const save = (actor: Actor, desk: string | null) =>
      saveReading(base.app, actor, runId, reading(1, '4.003', { desk }));
    await expect(save(signedIn(works.technician), null)).rejects.toThrow('says which one it is');
    await expect(save(signedIn(works.colleague), MINE)).rejects.toThrow(
      'Technician A has taken this job over',
    );
    await expect(save(signedIn(works.technician), OTHER)).rejects.toThrow('has taken this job over');
    await save(signedIn(works.technician), MINE);
    await saveReading(base.app, { ...works.colleague, via: 'program' }, runId, reading(2, '8.003'));
  });
});
