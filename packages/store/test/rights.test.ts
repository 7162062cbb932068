import { beforeAll, describe, expect, it } from 'vitest';
import * as benches from '../src/benches';
import * as db from '../src/db';
import type { Queryable } from '../src/db/database';
import * as intervals from '../src/intervals';
import * as imports from '../src/imports';
import * as jobs from '../src/jobs';
import * as people from '../src/people';
import * as practice from '../src/practice';
import { ROLES, type Role } from '../src/people/people';
import type { Actor } from '../src/people/actor';
import * as registers from '../src/registers';
import * as results from '../src/results';
import * as runs from '../src/runs';
import { jobAtAsFound, openWorks, TAG, TODAY } from './works';

const { base, works } = await openWorks();

/** All that leads into the store. */
const store = {
  ...db,
  ...people,
  ...registers,
  ...jobs,
  ...runs,
  ...imports,
  ...benches,
  ...practice,
  ...intervals,
  ...results,
};

/** Who may do what, as docs/using.md says it. */
const WORKS: readonly Role[] = ['technician', 'administrator'];
const PLANS: readonly Role[] = ['technician', 'planner', 'administrator'];
const REVIEWS: readonly Role[] = ['reviewer', 'technician', 'administrator'];
const KEEPS: readonly Role[] = ['technician', 'planner', 'administrator'];
const SCHEDULES: readonly Role[] = ['planner', 'administrator'];
const ADMINISTERS: readonly Role[] = ['administrator'];

const MAY: Readonly<Record<string, readonly Role[]>> = {
  addBody: KEEPS,
  addCertificate: KEEPS,
  addConfiguration: KEEPS,
  addFinding: KEEPS,
  addInstrument: KEEPS,
  addNote: WORKS,
  addPerson: ADMINISTERS,
  addStandard: KEEPS,
  adjustAgain: WORKS,
  amendJob: WORKS,
  askCalculation: SCHEDULES,
  askForSetup: WORKS,
  askForTrial: ADMINISTERS,
  askForWrite: WORKS,
  assignOwner: KEEPS,
  attach: WORKS,
  backToJudge: WORKS,
  backToReturn: WORKS,
  beginAsLeft: WORKS,
  bringFile: ADMINISTERS,
  cancelJob: PLANS,
  changeBody: KEEPS,
  changeInstrument: KEEPS,
  changeIntervalOf: SCHEDULES,
  changePerson: ADMINISTERS,
  changeStandard: KEEPS,
  chooseCause: WORKS,
  connectAgain: WORKS,
  connectJob: WORKS,
  decideFinding: KEEPS,
  decideFindingFor: KEEPS,
  decideOnRun: WORKS,
  dropAddress: ADMINISTERS,
  endAutomatic: WORKS,
  finishRun: WORKS,
  keepAddress: ADMINISTERS,
  keepLoop: KEEPS,
  keepBias: WORKS,
  keepLiquid: KEEPS,
  keepMark: WORKS,
  keepModule: KEEPS,
  keepMove: WORKS,
  keepProcedure: KEEPS,
  keepSetupReading: WORKS,
  keepVessel: KEEPS,
  logAdjustment: WORKS,
  openJob: PLANS,
  openJobsFor: PLANS,
  openRangeChange: PLANS,
  orderAutomatic: WORKS,
  passAsked: WORKS,
  releaseReference: KEEPS,
  reopenAsFound: WORKS,
  reviewAmendment: REVIEWS,
  reviewJob: REVIEWS,
  saveReading: WORKS,
  saveReadings: WORKS,
  setLetterhead: ADMINISTERS,
  setPolicy: ADMINISTERS,
  setReview: ADMINISTERS,
  setSafetyAuthority: ADMINISTERS,
  setTimeZone: ADMINISTERS,
  signJob: WORKS,
  sitDown: WORKS,
  startAutomatic: WORKS,
  stopCalculation: SCHEDULES,
  takeBackCause: WORKS,
  takeImport: ADMINISTERS,
  throwRunAway: WORKS,
  tickLine: WORKS,
};

/** What everybody does to what is their own, or what acts are made of. */
const OWN = [
  'appendToTrail',
  'dropView',
  'keepAttempt',
  'keepView',
  'makeToken',
  'revokeToken',
  'setPassword',
];

type Act = (tx: Queryable, actor: Actor, ...rest: unknown[]) => Promise<unknown>;
const actsOfStore = Object.entries(store)
  .filter(
    ([, value]) => typeof value === 'function' && /^async function \w+\(tx, ?actor\b/.test(String(value)),
  )
  .map(([name]) => name);

const actors: Partial<Record<Role, Actor>> = {};
let jobId = 0;
beforeAll(async () => {
  ({ jobId } = await jobAtAsFound(base.app, works.technician));
  for (const role of ROLES)
    actors[role] = {
      ...works.administrator,
      personId: await store.addPerson(base.app, works.administrator, {
        name: `The ${role}`,
        role,
        login: null,
        isActive: true,
      }),
    };
});

/** What an act says to a role, with entries that are good enough to come to the question of rights; nothing is kept. */
async function tried(act: Act, actor: Actor): Promise<string> {
  const end = new Error('kept');
  const entry = {
    runIds: [1],
    reason: 'x',
    note: 'x',
    remark: 'x',
    name: 'x',
    password: '',
    bytes: Buffer.from('x'),
  };
  try {
    await base.app.transaction(async (tx) => {
      await act(tx, actor, jobId, entry, entry, entry);
      throw end;
    });
  } catch (error) {
    if (error === end) return 'kept';
    return error instanceof store.StoreError ? error.refusal.code : 'another error';
  }
  return 'kept';
}

it('every act of the store is in the table of rights', () => {
  expect(actsOfStore.sort()).toEqual([...Object.keys(MAY), ...OWN].sort());
});

describe.each(Object.entries(MAY))('%s', (name, roles) => {
  const act = (store as unknown as Record<string, Act>)[name] as Act;

  it.each(ROLES)('is asked of the role %s', async (role) => {
    const actor = actors[role];
    if (actor === undefined) throw new Error(`nobody is ${role}`);
    const said = await tried(act, actor);
    if (roles.includes(role)) expect(said).not.toBe('not-allowed');
    else expect(said).toBe('not-allowed');
  });

  it('is nobody’s who is not known, has been shut out, or has a password to change', async () => {
    const at = { at: works.administrator.at, today: TODAY };
    expect(await tried(act, { ...at, personId: 999_999 })).toBe('unknown-person');
    const leaver = { ...at, personId: works.colleague.personId };
    await base.owner.query(`update person set role = 'administrator', is_active = false where id = $1`, [
      leaver.personId,
    ]);
    expect(await tried(act, leaver)).toBe('unknown-person');
    await base.owner.query(`update person set is_active = true, must_change_password = true where id = $1`, [
      leaver.personId,
    ]);
    expect(await tried(act, leaver)).toBe('password-to-change');
  });
});

it('none of those tries left anything behind', async () => {
  expect((await store.loadJob(base.app, jobId)).stage).toBe('as-found');
  expect(await base.app.query('select from job')).toHaveLength(1);
  expect((await store.findInstrument(base.app, { tag: TAG })).configuration.version).toBe(1);
});
