/** What stands at the doors: strangers, hostile requests, a database that is away. */
import { randomUUID } from 'node:crypto';
import { expect, test } from './support/works';

const uncertain = (name: string) => ({
  name,
  estimate: 1,
  unit: '',
  distribution: { kind: 'standard', uncertainty: 0.1 },
});

test('hostile formulas neither stop the server nor keep it from others', async ({ works }) => {
  const compute = (name: string, body: object) =>
    fetch(`${works.url}/api/v1/compute/${name}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
  const wide = Array.from({ length: 12 }, (_, i) => `(a+${i})`).join('*');
  const budget = { model: wide, unit: '', inputs: [uncertain('a')] };
  expect((await compute('uncertainty-budget', budget)).status).toBe(200);

  const inputs = Array.from({ length: 40 }, (_, i) => uncertain(`a${i}`));
  const model = inputs.map(({ name }) => `sin(${name})*${name}`).join('+');
  const storm = Array.from({ length: 24 }, () =>
    compute('monte-carlo', { model, unit: '', inputs, trials: 1_000_000 }),
  );
  // While they wait, who is there is answered at once: a bound for a server that stands still, not a figure of speed.
  for (let count = 0; count < 10; count += 1) {
    const since = Date.now();
    expect((await fetch(`${works.url}/api/v1/health`)).status).toBe(200);
    expect(Date.now() - since).toBeLessThan(2000);
  }
  const first = await Promise.race(storm);
  expect(first.status).toBe(503);
  expect(first.headers.get('retry-after')).toBe('5');
  await works.killServer();
  await Promise.allSettled(storm);
});

test('without its database nothing is shown to anybody, and all is said in words', async ({
  works,
  page,
}) => {
  const cookie = await works.cookieOf('Technician A');
  const get = (path: string, headers: Record<string, string>) =>
    fetch(`${works.url}${path}`, { headers, redirect: 'manual' });
  expect((await get('/instruments', { cookie })).status).toBe(200);
  await works.withoutDatabase(async () => {
    const visitors: Record<string, string>[] = [{ cookie }, { cookie: 'barys-session=forged' }, {}];
    for (const headers of visitors)
      for (const path of ['/', '/instruments', '/office/people', '/sign-in', '/api/v1/export']) {
        const answer = await get(path, headers);
        const text = await answer.text();
        expect([path, answer.status]).toEqual([path, 503]);
        expect(answer.headers.get('retry-after')).toBe('5');
        expect(text).toContain('cannot reach its database');
        expect(text).not.toContain('PT-');
      }
    expect((await get('/api/v1/health', {})).status).toBe(503);
    await page.goto('/');
    await expect(page.getByRole('heading', { name: 'Not now' })).toBeVisible();
  });
  expect((await get('/instruments', { cookie })).status).toBe(200);
  // The page asks again by itself.
  await expect(page.getByRole('heading', { name: 'Not now' })).toBeHidden({ timeout: 20_000 });
});

test('a stranger is led to the sign-in, and from there nowhere else', async ({ works, page }) => {
  const elsewhere = '/\t/evil.invalid';
  await page.goto(`/sign-in?next=${encodeURIComponent(elsewhere)}`);
  await page.getByRole('button', { name: /Technician A/ }).click();
  await expect(page.getByRole('heading', { name: /Today/ })).toBeVisible();
  expect(new URL(page.url()).origin).toBe(works.url);
});

test('entries from other pages are refused, also where a browser says only its origin', async ({ works }) => {
  const cookie = await works.cookieOf('Technician A');
  const post = (headers: Record<string, string>) =>
    fetch(`${works.url}/api/v1/runs/1/readings`, {
      method: 'POST',
      headers: { cookie, ...headers },
      body: '{}',
    });
  expect((await post({ origin: 'http://evil.invalid' })).status).toBe(403);
  expect((await post({ 'sec-fetch-site': 'cross-site' })).status).toBe(403);
  expect((await post({ origin: works.url })).status).not.toBe(403);
});

test('a reading is kept by a session only while it stands, also just after one was kept by it', async ({
  works,
}) => {
  const cookie = await works.cookieOf('Technician A');
  const [run] = await works.query<{ id: string; position: string }>(
    `select run.id, 1 + (select max(position) from reading where run_id = run.id) as position
     from run join job on job.id = job_id where stage = 'as-found' and kind = 'as-found'
       and exists (select from reading where run_id = run.id)`,
  );
  const send = (output: string, supersedes: number | null, headers: Record<string, string> = {}) =>
    fetch(`${works.url}/api/v1/runs/${run?.id}/readings`, {
      method: 'POST',
      headers: { cookie, 'content-type': 'application/json', ...headers },
      body: JSON.stringify({
        position: Number(run?.position),
        clientKey: randomUUID(),
        appliedText: '2',
        appliedAs: 'set',
        outputText: output,
        supersedes,
        desk: randomUUID(),
      }),
    });
  await works.query('delete from desk');
  const first = await send('12.01', null);
  expect(first.status, await first.clone().text()).toBe(201);
  const { id } = (await first.json()) as { id: number };
  const second = await send('12.02', id);
  expect(second.status).toBe(201);
  const last = ((await second.json()) as { id: number }).id;
  expect((await send('12.03', last, { 'sec-fetch-site': 'cross-site' })).status).toBe(403);

  // The server has seen the session a moment ago; what writes looks for itself.
  await works.query(`update person set must_change_password = true where name = 'Technician A'`);
  expect(await (await send('12.03', last)).json()).toMatchObject({
    status: 403,
    title: 'Change your password',
  });
  await works.query(
    `update person set must_change_password = false, role = 'auditor' where name = 'Technician A'`,
  );
  expect(await (await send('12.03', last)).json()).toMatchObject({ status: 403, title: 'Not kept' });
  await works.query(`update person set role = 'technician' where name = 'Technician A'`);
  expect((await send('12.03', last)).status).toBe(201);
  await works.query('delete from session');
  expect(await (await send('12.04', last)).json()).toMatchObject({ status: 401, title: 'Not signed in' });
  const kept = await works.query<{ text: string }>(
    `select output_text as text from reading where run_id = ${run?.id} and position = ${run?.position} order by id`,
  );
  expect(kept.map(({ text }) => text)).toEqual(['12.01', '12.02', '12.03']);
});

test('a large body is refused before it is read, by who may send such', async ({ works }) => {
  const send = (path: string, bytes: number, headers: Record<string, string> = {}) =>
    fetch(`${works.url}${path}`, { method: 'POST', headers, body: 'x'.repeat(bytes) });
  const refused = await send('/sign-in', 1_000_000);
  expect(refused.status).toBe(413);
  expect(((await refused.json()) as { detail: string }).detail).toContain('at most 256 kB');
  const cookie = await works.cookieOf('Technician A');
  expect((await send('/instruments', 3_000_000, { cookie })).status).toBe(413);
  expect((await send('/office/import', 3_000_000, { cookie })).status).not.toBe(413);
});
