import { beforeAll, describe, expect, it } from 'vitest';
import {
  addFirstPerson,
  addPerson,
  changePerson,
  findPerson,
  listEverybody,
  personSchema,
} from '../src/people/people';
import { addSite } from '../src/people/site';
import {
  countPasswordTry,
  isPasswordOf,
  makeToken,
  personOfSession,
  personOfToken,
  revokeToken,
  setPassword,
  signIn,
  signInToDemo,
  signOut,
  tokenSchema,
  tokensOf,
  type SignInFrom,
} from '../src/people/sessions';
import { openJob } from '../src/jobs/decide';
import type { Actor } from '../src/people/actor';
import { openWorks, TAG, TODAY } from './works';

const PASSWORD = 'four plain words here';
const LATER = new Date('2026-05-04T09:00:00Z');

const { base, works } = await openWorks();
let fitter: Actor;

beforeAll(async () => {
  const id = await addPerson(base.app, works.administrator, {
    name: 'Fitter',
    role: 'technician',
    login: 'fitter',
    isActive: true,
  });
  fitter = { ...works.technician, personId: id };
  await setPassword(base.app, works.administrator, id, { password: PASSWORD, current: null });
});

const at = (date: Date) => ({ at: date, today: TODAY });
const come = (password: string, login: string, date: Date, from: Partial<SignInFrom> = {}) =>
  signIn(base.app, at(date), { login, password }, { address: '10.0.0.1', browser: null, ...from });
const enter = async (password: string, login = ' Fitter ', date = LATER) =>
  (await come(password, login, date)).session;

describe('signing in', () => {
  it('takes login and password, and the session is the person until it ends', async () => {
    const token = await enter(PASSWORD);
    expect((await personOfSession(base.app, token, LATER))?.name).toBe('Fitter');
    expect(await personOfSession(base.app, token, new Date('2026-05-19T09:00:00Z'))).toBeNull();
    expect(await personOfSession(base.app, `${token}x`, LATER)).toBeNull();
    await signOut(base.app, at(LATER), token);
    await signOut(base.app, at(LATER), token);
    expect(await personOfSession(base.app, token, LATER)).toBeNull();
    const left = await base.app.query(`select subject_id from audit_entry where act = 'sign out'`);
    expect(left).toEqual([{ subject_id: fitter.personId }]);
  });

  it('leaves tries that failed in the trail, and those that have to wait once a minute', async () => {
    const entries = async (login: string) => {
      const rows = await base.app.query<{ act: string }>(
        `select act from audit_entry where person_id is null and detail = $1 order by id`,
        [JSON.stringify({ login, address: '10.9.9.9' })],
      );
      return rows.map(({ act }) => act);
    };
    const guess = (second: number) =>
      come('guess', 'ghost', new Date(Date.parse('2026-05-04T09:20:00Z') + second * 10), {
        address: '10.9.9.9',
      });
    for (let second = 0; second < 9; second += 1) await expect(guess(second)).rejects.toThrow();
    expect(await entries('ghost')).toEqual([...Array<string>(5).fill('fail sign-in'), 'refuse sign-in']);
  });

  it('keeps neither password nor token in the database', async () => {
    const token = await enter(PASSWORD);
    const [kept] = await base.owner.query<{ hash: string; sessions: string }>(
      `select password_hash as hash, (select string_agg(encode(token_hash, 'escape'), ' ') from session) as sessions
       from person where login = 'fitter'`,
    );
    expect(kept?.hash).toMatch(/^\$argon2id\$/);
    expect(kept?.sessions).not.toContain(token);
  });

  it('refuses a wrong password and an unknown login in the same words', async () => {
    await expect(enter('wrong')).rejects.toThrow('do not belong together');
    await expect(enter(PASSWORD, 'nobody')).rejects.toThrow('do not belong together');
    await expect(enter('', 'technician')).rejects.toThrow('do not belong together');
  });

  it('slows guessing down after some tries, also of many at once, and for that login alone', async () => {
    const late = new Date('2026-05-05T09:00:00Z');
    const tries = await Promise.allSettled(Array.from({ length: 12 }, () => enter('guess', 'fitter', late)));
    const words = tries.map((one) => (one.status === 'rejected' ? String(one.reason) : 'in'));
    expect(words.filter((one) => one.includes('do not belong together')).length).toBeLessThanOrEqual(6);
    await expect(enter(PASSWORD, 'fitter', late)).rejects.toThrow(/Too many tries.*in 2 seconds/);
    await expect(enter('guess', 'other', late)).rejects.toThrow('do not belong together');
    // Each further try waits twice as long as the one before.
    const in3s = new Date(late.valueOf() + 3000);
    await expect(enter('guess', 'fitter', in3s)).rejects.toThrow('do not belong together');
    await expect(enter('guess', 'fitter', in3s)).rejects.toThrow('in 4 seconds');
    await expect(enter(PASSWORD, 'fitter', new Date('2026-05-05T09:16:00Z'))).resolves.toBeTruthy();
  });

  it('is not shut to a browser that was signed in before, whatever strangers guess', async () => {
    const day = new Date('2026-05-06T09:00:00Z');
    const { browser } = await come(PASSWORD, 'fitter', day);
    for (let count = 0; count < 8; count += 1)
      await come('guess', 'fitter', day, { address: `10.9.9.${count}` }).catch(() => undefined);
    await expect(come(PASSWORD, 'fitter', day, { address: '10.8.8.8' })).rejects.toThrow('Too many tries');
    await expect(come(PASSWORD, 'fitter', day, { address: '10.8.8.8', browser })).resolves.toBeTruthy();
    // Somebody else's browser is a stranger to this login.
    await expect(come(PASSWORD, 'fitter', day, { address: '10.8.8.8', browser: 'x' })).rejects.toThrow(
      'Too many tries',
    );
  });

  it('slows one address that tries many logins', async () => {
    const day = new Date('2026-05-07T09:00:00Z');
    const spray = (count: number) => come(PASSWORD, `login${count}`, day, { address: '10.7.7.7' });
    for (let count = 0; count < 20; count += 1)
      await expect(spray(count)).rejects.toThrow('do not belong together');
    await expect(spray(20)).rejects.toThrow('Too many tries');
    await expect(come('guess', 'login21', day, { address: '10.6.6.6' })).rejects.toThrow('belong together');
  });

  it('is open again at once with a new password of the administrator', async () => {
    const day = new Date('2026-05-08T09:00:00Z');
    for (let count = 0; count < 7; count += 1) await enter('guess', 'fitter', day).catch(() => undefined);
    await expect(enter(PASSWORD, 'fitter', day)).rejects.toThrow('Too many tries');
    await setPassword(base.app, works.administrator, fitter.personId, { password: PASSWORD, current: null });
    await expect(enter(PASSWORD, 'fitter', day)).resolves.toBeTruthy();
  });

  it('ends after a shift without a request, and lives on with each', async () => {
    const token = await enter(PASSWORD);
    const after = (hours: number) => new Date(LATER.valueOf() + hours * 3_600_000);
    expect((await personOfSession(base.app, token, after(11)))?.name).toBe('Fitter');
    expect((await personOfSession(base.app, token, after(22)))?.name).toBe('Fitter');
    expect(await personOfSession(base.app, token, after(35))).toBeNull();
  });

  it('ends the sessions in other browsers where that is wished, and only then', async () => {
    const [first, second] = [await enter(PASSWORD), await enter(PASSWORD)];
    const { session } = await come(PASSWORD, 'fitter', LATER, { endsOthers: true });
    for (const token of [first, second]) expect(await personOfSession(base.app, token, LATER)).toBeNull();
    expect((await personOfSession(base.app, session, LATER))?.name).toBe('Fitter');
  });

  it('goes without a password in a demo only', async () => {
    const demo = () => signInToDemo(base.app, at(LATER), fitter.personId);
    await expect(demo()).rejects.toThrow('Only a demo');
    await addSite(base.owner, { siteName: 'Works', isDemo: true });
    expect((await personOfSession(base.app, await demo(), LATER))?.name).toBe('Fitter');
    await base.owner.query('delete from installation');
  });
});

describe('a password', () => {
  it('is changed by its owner with the old one, and all sessions end', async () => {
    const token = await enter(PASSWORD);
    const change = (current: string, password: string) =>
      setPassword(base.app, fitter, fitter.personId, { current, password });
    await expect(change('wrong', 'another few words')).rejects.toThrow('do not belong together');
    await expect(change(PASSWORD, 'short')).rejects.toThrow('at least 10 characters');
    await change(PASSWORD, 'another few words');
    expect(await personOfSession(base.app, token, LATER)).toBeNull();
    expect(await isPasswordOf(base.app, fitter.personId, 'another few words')).toBe(true);
    await change('another few words', PASSWORD);
  });

  it('that an administrator has set is changed before anything else is done', async () => {
    await setPassword(base.app, works.administrator, fitter.personId, { password: PASSWORD, current: null });
    await expect(openJob(base.app, fitter, TAG, 'due')).rejects.toThrow(
      'Somebody else has set your password',
    );
    const token = { name: 'logger', scope: 'read', days: 30 } as const;
    await expect(makeToken(base.app, fitter, token)).rejects.toThrow('Somebody else has set your password');
    const change = (password: string) =>
      setPassword(base.app, fitter, fitter.personId, { current: PASSWORD, password });
    await expect(change(PASSWORD)).rejects.toThrow('it is the one that you have');
    await change('seven grey herons stood');
    await openJob(base.app, fitter, TAG, 'due');
    await setPassword(base.app, fitter, fitter.personId, {
      current: 'seven grey herons stood',
      password: PASSWORD,
    });
  });

  it.each([
    ['password123', 'it is a common password'],
    ['aaaaaaaaaaaa', 'it repeats itself'],
    ['qwertyuiop12', 'it is like a common password'],
    ['fitterfitter', 'a few unusual words'],
  ])('such as %s is refused: %s', async (password, why) => {
    const set = setPassword(base.app, fitter, fitter.personId, { current: PASSWORD, password });
    await expect(set).rejects.toThrow(why);
  });

  it('typed again to sign is guessed no more often than one to sign in, and counted apart', async () => {
    const tryAgain = () => countPasswordTry(base.app, fitter);
    for (let count = 0; count < 4; count += 1) await tryAgain();
    expect(await isPasswordOf(base.app, fitter.personId, PASSWORD)).toBe(true);
    for (let count = 0; count < 5; count += 1) {
      await tryAgain();
      expect(await isPasswordOf(base.app, fitter.personId, 'a guess')).toBe(false);
    }
    await expect(tryAgain()).rejects.toThrow('Too many tries');
    await expect(enter(PASSWORD)).resolves.toBeTruthy();
    await expect(
      countPasswordTry(base.app, { ...fitter, at: new Date(fitter.at.valueOf() + 16 * 60_000) }),
    ).resolves.toBeUndefined();
  });

  it('of somebody else is set by an administrator only', async () => {
    await expect(
      setPassword(base.app, works.technician, fitter.personId, {
        current: null,
        password: 'not for him to say',
      }),
    ).rejects.toThrow('may not do this');
  });
});

describe('a name', () => {
  const parse = (name: string) =>
    personSchema.parse({ name, role: 'technician', login: null, isActive: true }).name;

  it('is one line of visible letters of one script', () => {
    expect(parse('  Anna\u00a0 Berg ')).toBe('Anna Berg');
    expect(parse('Zoe\u0308')).toBe('Zo\u00eb');
    expect(parse('Анна Берг')).toBe('Анна Берг');
    // A zero-width space, a right-to-left override, a Cyrillic а and a Greek ο among Latin letters.
    for (const name of ['Anna\u200bBerg', 'Anna\u202eBerg', '\u0410nna Berg', 'J\u03bfnas'])
      expect(() => parse(name), name).toThrow(/cannot be seen|two scripts/);
  });

  it('is nobody else’s in other capitals', async () => {
    const add = addPerson(base.app, works.administrator, {
      name: 'FITTER',
      role: 'technician',
      login: null,
      isActive: true,
    });
    await expect(add).rejects.toThrow('There is already a person FITTER');
  });
});

describe('people', () => {
  it('are entered and changed by an administrator; a change of role ends the sessions', async () => {
    const token = await enter(PASSWORD);
    const person = { name: 'Fitter', login: 'fitter', isActive: true };
    await base.owner.query('update person set must_change_password = false');
    const program = await makeToken(base.app, fitter, { name: 'logger', scope: 'read', days: 30 });
    expect(await personOfToken(base.app, program, 'read', LATER)).not.toBeNull();
    await changePerson(base.app, works.administrator, fitter.personId, { ...person, role: 'planner' });
    expect(await personOfToken(base.app, program, 'read', LATER)).toBeNull();
    expect(await personOfSession(base.app, token, LATER)).toBeNull();
    await expect(
      addPerson(base.app, works.technician, { ...person, name: 'X', login: null, role: 'technician' }),
    ).rejects.toThrow('may not do this');
    await expect(
      addPerson(base.app, works.administrator, { ...person, name: 'Y', role: 'technician' }),
    ).rejects.toThrow('There is already a person Y or login fitter');
    await changePerson(base.app, works.administrator, fitter.personId, { ...person, role: 'technician' });
  });

  it('who have left can neither sign in nor act, and stay in the list', async () => {
    const id = await addPerson(base.app, works.administrator, {
      name: 'Leaver',
      role: 'technician',
      login: 'leaver',
      isActive: true,
    });
    await setPassword(base.app, works.administrator, id, { password: PASSWORD, current: null });
    const token = await enter(PASSWORD, 'leaver');
    const person = { name: 'Leaver', role: 'technician', login: 'leaver', isActive: false } as const;
    await changePerson(base.app, works.administrator, id, person);
    expect(await personOfSession(base.app, token, LATER)).toBeNull();
    await expect(enter(PASSWORD, 'leaver')).rejects.toThrow('do not belong together');
    expect(await findPerson(base.app, id)).toBeNull();
    expect((await listEverybody(base.app)).at(-1)).toMatchObject({ name: 'Leaver', isActive: false });
  });

  it('keep at least one administrator, also where two leave at once', async () => {
    const second = await addPerson(base.app, works.administrator, {
      name: 'Second',
      role: 'administrator',
      login: null,
      isActive: true,
    });
    const leave = (id: number, name: string) =>
      base.app.transaction((tx) =>
        changePerson(tx, works.administrator, id, { name, role: 'auditor', login: null, isActive: true }),
      );
    const ended = await Promise.allSettled([
      leave(second, 'Second'),
      leave(works.administrator.personId, 'Administrator'),
    ]);
    expect(ended.some(({ status }) => status === 'rejected')).toBe(true);
    await base.owner.query(`update person set role = 'administrator' where name = 'Administrator'`);
  });

  it('begin with one administrator, once', async () => {
    await expect(
      addFirstPerson(base.app, at(LATER), { name: 'Z', role: 'administrator', login: 'z1', isActive: true }),
    ).rejects.toThrow('already has an administrator');
  });

  it.each(['A', 'a b', 'ä.b', '-ab'])('have no login %o', (login) => {
    expect(() => personSchema.parse({ name: 'N', role: 'auditor', login, isActive: true })).toThrow(
      'A login is',
    );
  });
});

describe('a token', () => {
  it('acts as its maker within its scope until it expires or is revoked', async () => {
    const read = await makeToken(base.app, fitter, { name: 'historian', scope: 'read', days: 30 });
    const write = await makeToken(base.app, fitter, { name: 'bench', scope: 'write', days: 30 });
    expect((await personOfToken(base.app, read, 'read', LATER))?.name).toBe('Fitter');
    expect(await personOfToken(base.app, read, 'write', LATER)).toBeNull();
    expect((await personOfToken(base.app, write, 'read', LATER))?.name).toBe('Fitter');
    expect(await personOfToken(base.app, write, 'write', new Date('2026-06-04T09:00:00Z'))).toBeNull();
    const [token] = await tokensOf(base.app, fitter.personId);
    await expect(revokeToken(base.app, works.technician, token?.id ?? 0)).rejects.toThrow('no token');
    await revokeToken(base.app, fitter, token?.id ?? 0);
    expect(await personOfToken(base.app, write, 'read', LATER)).toBeNull();
  });

  it('lives at most a year', () => {
    expect(() => tokenSchema.parse({ name: 'x', scope: 'read', days: 400 })).toThrow('at most a year');
  });
});
