import { beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { addPerson } from '../src/people/people';
import { addSite, findSite, setLetterhead, setReview, setTimeZone } from '../src/people/site';
import { amendJob, reviewAmendment } from '../src/jobs/amend';
import { amendedRun, amendmentsOfJob } from '../src/jobs/amendments';
import { asFoundRun, jobsToReview, loadJob } from '../src/jobs/file';
import { backToReturn, reviewJob, signJob } from '../src/jobs/sign';
import { decideOnRun, finishRun, openJob } from '../src/jobs/decide';
import { evaluateStoredRun } from '../src/runs/evaluation';
import { findInstrument } from '../src/registers/instruments';
import { keepMove } from '../src/jobs/valves';
import { setPassword } from '../src/people/sessions';
import type { Actor } from '../src/people/actor';
import { bringBack, closeOpenJobs, jobAtAsFound, openWorks, readAll, SIGNED, TAG } from './works';

const PASSWORD = 'four words in a row';
const { base, works } = await openWorks();
let reviewer: Actor;
const HEAD = {
  laboratory: 'Test workshop',
  laboratoryAddress: '1 Kiln Lane',
  customer: 'Test works',
  customerAddress: '',
};

let jobId: number;

beforeAll(async () => {
  await addSite(base.owner, { siteName: 'Test works', isDemo: false });
  await setTimeZone(base.app, works.administrator, 'UTC');
  await setLetterhead(base.app, works.administrator, HEAD);
  const person = { name: 'Reviewer', role: 'reviewer', login: 'reviewer', isActive: true } as const;
  reviewer = { ...works.technician, personId: await addPerson(base.owner, works.administrator, person) };
  await givePassword(reviewer.personId);
});

/** As an administrator gives it, and changed by its owner since. */
async function givePassword(personId: number): Promise<void> {
  await setPassword(base.app, works.administrator, personId, { password: PASSWORD, current: null });
  await base.owner.query('update person set must_change_password = false where id = $1', [personId]);
}

/** A job at its signature, read by the technician with the same error at all points. */
async function atSign(errorMilliamp = 0.01): Promise<void> {
  const { app } = base;
  const { technician } = works;
  const run = await jobAtAsFound(app, technician);
  jobId = run.jobId;
  await readAll(app, technician, run.runId, errorMilliamp);
  await finishRun(app, technician, jobId, 'as-found');
  await decideOnRun(app, technician, jobId, { decision: 'leave', note: 'as it is' });
  await bringBack(app, technician, jobId);
}

const accepted = { isAccepted: true, remark: '', password: PASSWORD };
const close = async () => {
  await signJob(base.app, works.technician, jobId, SIGNED);
  await reviewJob(base.app, reviewer, jobId, accepted);
};

beforeEach(async () => {
  await closeOpenJobs(base.owner);
  await setReview(base.app, works.administrator, 'another person');
});

describe('a signature', () => {
  it('asks for the password again of those who have one', async () => {
    const person = { name: 'Technician C', role: 'technician', login: 'third', isActive: true } as const;
    const third = { ...works.technician, personId: await addPerson(base.owner, works.administrator, person) };
    await givePassword(third.personId);
    await atSign();
    await expect(signJob(base.app, third, jobId, { remark: '', password: 'a guess' })).rejects.toThrow(
      'do not belong together',
    );
    expect((await loadJob(base.app, jobId)).stage).toBe('sign');
    await signJob(base.app, third, jobId, { remark: '', password: PASSWORD });
    expect(await loadJob(base.app, jobId)).toMatchObject({ stage: 'review', signedBy: 'Technician C' });
  });

  it('can be put off to put the return right', async () => {
    await atSign();
    await backToReturn(base.app, works.technician, jobId);
    expect((await loadJob(base.app, jobId)).stage).toBe('return');
  });

  it('closes the job where the site has no review', async () => {
    await setReview(base.app, works.administrator, 'none');
    await atSign();
    await signJob(base.app, works.technician, jobId, SIGNED);
    expect(await loadJob(base.app, jobId)).toMatchObject({ stage: 'closed', reviewedAt: null });
  });

  it('moves the due date when the review has accepted it, and the trail says from when', async () => {
    await base.owner.query(`update instrument set due_on = '2026-05-01' where tag = '${TAG}'`);
    const dueOn = async () => (await findInstrument(base.app, { tag: TAG })).dueOn;
    await atSign();
    await signJob(base.app, works.technician, jobId, SIGNED);
    expect((await jobsToReview(base.app, 10)).map(({ id }) => id)).toEqual([jobId]);
    expect(await dueOn()).toBe('2026-05-01');
    await reviewJob(base.app, reviewer, jobId, { ...accepted, isAccepted: false, remark: 'which pump?' });
    expect(await dueOn()).toBe('2026-05-01');
    await close();
    expect(await dueOn()).toBe('2027-05-04');
    const [entry] = await base.app.query(
      `select detail -> 'due' as due from audit_entry where act = 'accept job' order by id desc limit 1`,
    );
    expect(entry).toEqual({ due: { before: '2026-05-01', after: '2027-05-04' } });
  });
});

describe('the letterhead', () => {
  it('is asked for before the first signature of the site', async () => {
    const fresh = await openWorks();
    await addSite(fresh.base.owner, { siteName: 'New works', isDemo: false });
    const run = await jobAtAsFound(fresh.base.app, fresh.works.technician);
    await readAll(fresh.base.app, fresh.works.technician, run.runId, 0.01);
    await finishRun(fresh.base.app, fresh.works.technician, run.jobId, 'as-found');
    await decideOnRun(fresh.base.app, fresh.works.technician, run.jobId, {
      decision: 'leave',
      note: 'as it is',
    });
    await bringBack(fresh.base.app, fresh.works.technician, run.jobId);
    const sign = () => signJob(fresh.base.app, fresh.works.technician, run.jobId, SIGNED);
    await expect(sign()).rejects.toThrow('Office, Settings');
    await setLetterhead(fresh.base.app, fresh.works.administrator, HEAD);
    await sign();
  });

  it('stays on a signed job as it was on the day, and is new on the next', async () => {
    await setLetterhead(base.app, works.administrator, HEAD);
    await atSign();
    expect((await loadJob(base.app, jobId)).letterhead).toBeNull();
    await signJob(base.app, works.technician, jobId, SIGNED);
    await setLetterhead(base.app, works.administrator, { ...HEAD, laboratory: 'Another workshop' });
    expect((await loadJob(base.app, jobId)).letterhead).toEqual(HEAD);
    expect((await findSite(base.app))?.letterhead.laboratory).toBe('Another workshop');
    const [entry] = await base.app.query(
      `select detail from audit_entry where act = 'set letterhead' order by id desc limit 1`,
    );
    expect(entry).toMatchObject({
      detail: { before: { laboratory: 'Test workshop' }, after: { laboratory: 'Another workshop' } },
    });
  });

  it('is set by an administrator alone', async () => {
    await expect(setLetterhead(base.app, works.technician, HEAD)).rejects.toThrow('may not do this');
  });
});

describe('a review', () => {
  it('is not by whoever read or signed the job', async () => {
    await atSign();
    await signJob(base.app, works.colleague, jobId, SIGNED);
    for (const hand of [works.technician, works.colleague])
      await expect(reviewJob(base.app, hand, jobId, { ...accepted, password: '' })).rejects.toThrow(
        'hand in this job',
      );
    await expect(reviewJob(base.app, works.auditor, jobId, accepted)).rejects.toThrow('may not do this');
    await expect(reviewJob(base.app, reviewer, jobId, { ...accepted, password: 'x' })).rejects.toThrow(
      'do not belong together',
    );
    await reviewJob(base.app, reviewer, jobId, { ...accepted, remark: 'clear' });
    expect(await loadJob(base.app, jobId)).toMatchObject({
      stage: 'closed',
      reviewedBy: 'Reviewer',
      reviewRemark: 'clear',
    });
    expect(await jobsToReview(base.app, 10)).toEqual([]);
  });

  it('is not by whoever moved a valve or passed a stage of the job either', async () => {
    const { app } = base;
    const run = await jobAtAsFound(app, works.technician);
    await readAll(app, works.technician, run.runId, 0.01);
    await finishRun(app, works.technician, run.jobId, 'as-found');
    await decideOnRun(app, works.technician, run.jobId, { decision: 'leave', note: 'as it is' });
    await bringBack(app, works.colleague, run.jobId);
    await signJob(app, works.technician, run.jobId, SIGNED);
    await base.owner.query(`update person set role = 'reviewer' where id = $1`, [works.colleague.personId]);
    const review = reviewJob(app, works.colleague, run.jobId, { ...accepted, password: '' });
    await expect(review).rejects.toThrow('hand in this job');
    await base.owner.query(`update person set role = 'technician' where id = $1`, [works.colleague.personId]);
  });

  it('may be by the signer where the site lets anybody review', async () => {
    await setReview(base.app, works.administrator, 'anybody');
    await atSign();
    await signJob(base.app, works.technician, jobId, SIGNED);
    await reviewJob(base.app, works.technician, jobId, { ...accepted, password: '' });
    expect((await loadJob(base.app, jobId)).reviewedBy).toBe('Technician A');
  });

  it('sends a job back with a remark, and it is signed again', async () => {
    await atSign();
    await signJob(base.app, works.technician, jobId, SIGNED);
    const back = { isAccepted: false, password: PASSWORD };
    await expect(reviewJob(base.app, reviewer, jobId, { ...back, remark: ' ' })).rejects.toThrow('Say why');
    await reviewJob(base.app, reviewer, jobId, { ...back, remark: 'which pump was used?' });
    const sent = await loadJob(base.app, jobId);
    expect(sent).toMatchObject({ stage: 'sign', signedBy: null });
    expect(sent.passed.at(-1)).toMatchObject({ stage: 'review', note: 'sent back: which pump was used?' });
    await close();
    expect((await loadJob(base.app, jobId)).stage).toBe('closed');
  });

  it('sends nothing back beside another open job, and says so', async () => {
    await atSign();
    await signJob(base.app, works.technician, jobId, SIGNED);
    const other = await openJob(base.app, works.technician, TAG, 'fault');
    const back = { isAccepted: false, remark: 'which pump was used?', password: PASSWORD };
    await expect(reviewJob(base.app, reviewer, jobId, back)).rejects.toThrow(
      `Job ${other} was opened on this instrument since`,
    );
    expect((await loadJob(base.app, jobId)).stage).toBe('review');
  });

  it('is set for the site by an administrator alone', async () => {
    await expect(setReview(base.app, works.technician, 'none')).rejects.toThrow('may not do this');
    await expect(base.app.query(`update installation set is_demo = true`)).rejects.toThrow(
      'permission denied',
    );
  });
});

describe('an amendment', () => {
  const words = {
    readingId: null,
    field: 'remark',
    what: '',
    afterText: 'pump 3 was used',
    reason: 'left out',
    password: '',
  } as const;
  const lastAmendment = async () => (await amendmentsOfJob(base.app, jobId)).at(-1)?.id ?? 0;
  const agree = async () => reviewAmendment(base.app, reviewer, await lastAmendment(), accepted);

  it('is to a closed record only, and the database holds to that', async () => {
    await atSign();
    await expect(amendJob(base.app, works.technician, jobId, words)).rejects.toThrow('belongs to closed');
    await expect(
      base.owner.query(
        `insert into amendment (job_id, what, before_text, after_text, reason, amended_by, amended_at, needs_review)
         values ($1, 'x', 'a', 'b', 'c', $2, now(), false)`,
        [jobId, works.technician.personId],
      ),
    ).rejects.toThrow('is not closed');
  });

  it('keeps both versions, with who, when and why', async () => {
    await atSign();
    await close();
    await amendJob(base.app, works.colleague, jobId, words);
    await agree();
    await amendJob(base.app, works.technician, jobId, {
      ...words,
      afterText: 'pump 4 was used',
      reason: 'misread',
    });
    expect(await amendmentsOfJob(base.app, jobId)).toMatchObject([
      { beforeText: '', afterText: 'pump 3 was used', amendedBy: 'Technician B', reason: 'left out' },
      { beforeText: 'pump 3 was used', afterText: 'pump 4 was used', amendedBy: 'Technician A' },
    ]);
    expect((await loadJob(base.app, jobId)).remark).toBe('');
    await expect(base.owner.query('delete from amendment')).rejects.toThrow('only ever added to');
  });

  it('of a reading leaves the reading as it was read, and is judged beside it', async () => {
    await atSign();
    await close();
    const run = asFoundRun(await loadJob(base.app, jobId));
    const reading = run?.readings[2];
    if (run == null || reading === undefined) throw new Error('the run has no third reading');
    await amendJob(base.app, works.technician, jobId, {
      ...words,
      readingId: reading.id,
      afterText: '12,060',
      reason: 'the sheet says 12.060',
    });
    expect(amendedRun(run, await amendmentsOfJob(base.app, jobId))).toBeNull();
    await agree();
    const amendments = await amendmentsOfJob(base.app, jobId);
    expect(amendments).toMatchObject([
      { what: 'as found, reading at point 3', beforeText: '12.010', afterText: '12,060' },
    ]);
    const amended = amendedRun(run, amendments);
    expect(amended?.readings[2]).toMatchObject({ outputText: '12,060', output: 12.06 });
    expect(amended && evaluateStoredRun(amended).verdict).toBe('outside');
    expect(evaluateStoredRun(run).verdict).toBe('within');
    expect(amendedRun(run, [])).toBeNull();
  });

  it.each([
    [{ reason: ' ' }, 'keeps its reason'],
    [{ afterText: '' }, 'what it should have said'],
    [{ field: 'other', what: ' ' } as const, 'what of the record is amended'],
    [{ afterText: 'PC-1 was warm', field: 'other', what: 'Reference', readingId: null } as const, null],
    [{ readingId: 999999 }, 'no reading 999999'],
  ])('is refused with %j', async (more, message) => {
    await atSign();
    await close();
    const amend = amendJob(base.app, works.technician, jobId, { ...words, ...more });
    await (message === null
      ? expect(amend).resolves.toBeUndefined()
      : expect(amend).rejects.toThrow(message));
  });

  it('counts when a second person has agreed, who had no hand in job or amendment', async () => {
    await atSign();
    await close();
    await amendJob(base.app, works.colleague, jobId, words);
    const id = await lastAmendment();
    for (const hand of [works.technician, works.colleague])
      await expect(reviewAmendment(base.app, hand, id, { ...accepted, password: '' })).rejects.toThrow(
        'hand in this job',
      );
    await expect(amendJob(base.app, works.technician, jobId, words)).rejects.toThrow('waits for a second');
    await expect(reviewAmendment(base.app, reviewer, id, { ...accepted, password: 'x' })).rejects.toThrow(
      'do not belong together',
    );
    await expect(
      reviewAmendment(base.app, reviewer, id, { ...accepted, isAccepted: false, remark: ' ' }),
    ).rejects.toThrow('Say why');
    await reviewAmendment(base.app, reviewer, id, {
      ...accepted,
      isAccepted: false,
      remark: 'it was pump 4',
    });
    await expect(agree()).rejects.toThrow('There is no amendment');
    expect(await amendmentsOfJob(base.app, jobId)).toMatchObject([
      { state: 'refused', reviewedBy: 'Reviewer', reviewRemark: 'it was pump 4' },
    ]);
    // What was refused was never in force: the next one begins at what was signed.
    await amendJob(base.app, works.colleague, jobId, { ...words, afterText: 'pump 4 was used' });
    expect((await amendmentsOfJob(base.app, jobId)).at(-1)).toMatchObject({ beforeText: '', state: 'waits' });
  });

  it('asks for the password, and counts at once where the site has no review', async () => {
    await setReview(base.app, works.administrator, 'none');
    const person = { name: 'Technician D', role: 'technician', login: 'fourth', isActive: true } as const;
    const fourth = {
      ...works.technician,
      personId: await addPerson(base.owner, works.administrator, person),
    };
    await givePassword(fourth.personId);
    await atSign();
    await signJob(base.app, works.technician, jobId, SIGNED);
    await expect(amendJob(base.app, fourth, jobId, words)).rejects.toThrow('do not belong together');
    await amendJob(base.app, fourth, jobId, { ...words, password: PASSWORD });
    expect(await amendmentsOfJob(base.app, jobId)).toMatchObject([{ state: 'in force' }]);
  });
});

it('a closed job takes no valve move any more', async () => {
  await atSign();
  await close();
  await expect(
    keepMove(base.app, works.technician, jobId, {
      stage: 'return',
      valve: 'block',
      to: 'closed',
      isMadeAnyway: true,
      known: 4,
    }),
  ).rejects.toThrow('The job is at closed');
});
