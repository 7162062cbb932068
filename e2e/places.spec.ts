import type { Page } from '@playwright/test';
import { comeAs, expectAccessible, workAs } from './support/hands';
import { expect, test } from './support/works';

/** By day on a desk, by night on a phone: accessible, and no wider than the screen. */
async function expectFit(page: Page, path: string): Promise<void> {
  if (page.url() === 'about:blank') await comeAs(page, 'Technician A');
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(path);
  await expect(page.getByRole('heading').first()).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Switch to night' }).click();
  await page.setViewportSize({ width: 390, height: 844 });
  const overflow = () => page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
  await expect.poll(overflow, `${path} must not scroll sideways on a phone`).toBeLessThanOrEqual(0);
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Switch to paper (day)' }).click();
}

const PLACES: Readonly<Record<string, readonly string[]>> = {
  'Today and jobs': ['/', '/jobs', '/jobs/hand-over'],
  instruments: [
    '/instruments',
    '/instruments/PT-2301',
    '/instruments/PT-2107/versions',
    '/instruments/PT-2107/history',
    '/instruments/PT-2107/edit',
    '/instruments/PT-2107/configure',
    '/instruments/PT-2107/references',
    '/instruments/FT-1305/set-up',
    '/instruments/LT-5101',
  ],
  'references and benches': [
    '/references',
    '/references/DM-01?instrument=PT-2107',
    '/references/DM-01/findings/1',
    '/references/PC-01/modules/new',
    '/references/PC-01/address',
    '/bench',
  ],
  'people, procedures and bodies': [
    '/office/people',
    '/office/people/new',
    '/office/procedures',
    '/office/procedures/1',
    '/office/bodies',
    '/office/bodies/1',
    '/office/liquids',
    '/office/liquids/1',
  ],
  'import, export and the trail': [
    '/office/import',
    '/office/export',
    '/office/trail',
    '/sign-in',
    '/account',
  ],
  practice: [
    '/practice',
    '/practice/zero%20and%20span',
    '/practice/sensor%20or%20output',
    '/practice/digital%20gauge',
    '/practice/null%20meter',
    '/practice/pneumatic%20balance',
    '/practice/set-up%20rehearsal',
    '/practice/body%20exchange',
    '/practice/wet%20leg',
    '/practice/vacuum%20gauge',
    '/practice/free%20bench%3A%20dial%20gauge%2C%20hidden',
  ],
  insight: [
    '/insight',
    '/insight/intervals',
    '/insight/families?by=area',
    '/insight/calibrations?verdict=outside',
  ],
  planning: ['/planning', '/planning?also=PT-5120', '/planning/walks', '/planning/due', '/planning/hours'],
  workshop: [
    '/workshop',
    '/workshop/convert',
    '/workshop/expected?reading=8',
    '/workshop/uncertainty',
    '/workshop/range-change?tag=PT-2107',
    '/workshop/level',
    '/workshop/drum',
    '/workshop/flow?applied=2.5',
    '/workshop/orifice',
    '/workshop/supply?measured=13.8',
    '/workshop/loop',
    '/workshop/set-up',
  ],
};

for (const [place, paths] of Object.entries(PLACES))
  test(`${place}: accessible by day and by night, and fit for a phone`, async ({ page }) => {
    for (const path of paths) await expectFit(page, path);
  });

test('the jobs of the demo are accessible by day and by night, and fit a phone', async ({ page }) => {
  await workAs(page, 'Technician A', '/');
  const links = await page
    .getByRole('link', { name: /PT-(1310|6003|2215)/ })
    .evaluateAll((all) =>
      all
        .map((one) => one.getAttribute('href'))
        .filter((href): href is string => href?.startsWith('/jobs/') ?? false),
    );
  expect(links).toHaveLength(3);
  for (const path of links) await expectFit(page, path);
});

test('all that a run needs fits its screen without scrolling', async ({ page }) => {
  await workAs(page, 'Technician A', '/jobs');
  await page
    .getByRole('row', { name: /PT-2215/ })
    .first()
    .getByRole('link')
    .first()
    .click();
  await expect(page.getByRole('textbox', { name: /^Reading at/ })).toBeFocused();
  // What to apply with its figures, the corridor and the stave; notes and the ways out of a run come below.
  for (const part of [
    page.getByText('hysteresis'),
    page.getByRole('region', { name: 'Error against the limit' }),
    page.getByRole('region', { name: 'Signal stave' }),
  ]) {
    const box = await part.boundingBox();
    expect((box?.y ?? Infinity) + (box?.height ?? 0)).toBeLessThanOrEqual(800);
  }
});

test('nobody sees or does anything unsigned, and an auditor changes nothing', async ({ page }) => {
  await page.goto('/instruments/PT-2107');
  await expect(page).toHaveURL(/\/sign-in\?next=%2Finstruments%2FPT-2107/);
  await workAs(page, 'Auditor');
  await page.getByRole('button', { name: 'Start a job' }).click();
  await expect(page.getByText('Auditor has the role auditor, which may not do this.')).toBeVisible();
});

test('addresses that lead nowhere say so', async ({ page }) => {
  await comeAs(page, 'Auditor');
  for (const path of [
    '/instruments/PT-0000',
    '/jobs/999999',
    '/jobs/x',
    '/jobs/2101/nowhere',
    '/office/bodies/x',
    '/nowhere',
  ]) {
    const answer = await page.goto(path);
    expect(answer?.status(), path).toBe(404);
    await expect(page.getByText('There is nothing at this address')).toBeVisible();
  }
});

test('on a phone four places stand in a row at the bottom, and all of them in a sheet', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await workAs(page, 'Technician A', '/jobs');
  const row = page.getByRole('navigation', { name: 'Places' });
  await expect(row.getByRole('link')).toHaveText(['Today', 'Jobs', 'Instruments', 'References']);
  await expect(row.getByRole('link', { name: 'Jobs' })).toHaveAttribute('aria-current', 'page');
  const box = await row.boundingBox();
  expect(Math.round((box?.y ?? 0) + (box?.height ?? 0))).toBe(844);
  await row.getByRole('button', { name: 'All' }).click();
  const sheet = page.getByRole('dialog', { name: 'All places' });
  await expect(sheet.getByRole('link')).toHaveText([
    'Today',
    'Jobs',
    'Instruments',
    'References',
    'Bench',
    'Workshop',
    'Practice',
    'Planning',
    'Insight',
    'Office',
  ]);
  for (const link of await sheet.getByRole('link').all())
    expect((await link.boundingBox())?.height).toBeGreaterThanOrEqual(44);
  await sheet.getByRole('link', { name: 'Office' }).click();
  await expect(page).toHaveURL(/\/office\/people$|\/office$/);
  await expect(sheet).toBeHidden();
});

test('the edges are guarded: headers, origin, rate, and errors as problem details', async ({
  request,
  works,
}) => {
  const home = await request.get('/');
  const headers = home.headers();
  expect(headers['content-security-policy']).toMatch(/script-src 'self' 'nonce-[^']+' 'strict-dynamic'/);
  expect(headers['content-security-policy']).toContain("frame-ancestors 'none'");
  expect(headers).toMatchObject({ 'x-content-type-options': 'nosniff', 'referrer-policy': 'same-origin' });
  expect(headers['x-powered-by']).toBeUndefined();

  const [{ run } = { run: 0 }] = await works.query<{ run: number }>(
    `select max(run.id)::int as run from run join job on job.id = job_id where stage = 'as-found'`,
  );
  const reading = {
    position: 7,
    clientKey: '7b1f1c2e-6a52-4a83-9a4e-0d5b3f6f2a11',
    appliedText: '2.000',
    appliedAs: 'set',
    outputText: '12.045',
    supersedes: null,
    desk: '0b0f9f5e-4f1c-4f0e-8a3e-2f6f1d1c9b77',
  };
  const post = (data: object, more: Record<string, string> = {}) =>
    request.post(`/api/v1/runs/${run}/readings`, { data, headers: more });
  const signed = { cookie: await works.cookieOf('Technician A') };
  const audit = { cookie: await works.cookieOf('Auditor') };

  for (const [answer, status, words] of [
    [await post(reading), 401, 'Sign in first'],
    [await post(reading, audit), 403, 'may not do this'],
    [await post(reading, { ...signed, 'sec-fetch-site': 'cross-site' }), 403, 'made on its own pages'],
    [await post({ ...reading, outputText: '12.0.4' }, signed), 422, 'more than one decimal sign'],
    [await post({ ...reading, position: 99 }, signed), 409, 'no point 99'],
    [await post({ ...reading, desk: null }, signed), 409, 'says which one it is'],
    [await post({ ...reading, position: 1 }, signed), 409, 'already has the reading'],
    [
      await request.post('/api/v1/runs/999999/readings', { data: reading, headers: signed }),
      404,
      'no run 999999',
    ],
    [await request.get('/jobs/2101/certificate?paper=a9', { headers: audit }), 422, ''],
  ] as const) {
    expect(answer.status(), words).toBe(status);
    expect(answer.headers()['content-type']).toContain('application/problem+json');
    const problem = (await answer.json()) as { status: number; detail: string };
    expect(problem.status).toBe(status);
    expect(problem.detail).toContain(words);
  }
  const malformed = await post({ ...reading, outputText: '12,x' }, signed);
  expect(((await malformed.json()) as { field: string }).field).toBe('outputText');
  expect((await post(reading, signed)).status()).toBe(201);

  // A stranger who sends faster than anybody types is told to wait.
  const flood = await Promise.all(
    // Sixty in ten seconds are a stranger's, which the slowest machine passes with a request that does nothing.
    Array.from({ length: 200 }, () => request.post('/api/v1/openapi.json', { data: {} })),
  );
  const slowed = flood.filter((answer) => answer.status() === 429);
  expect(slowed.length).toBeGreaterThanOrEqual(25);
  expect(slowed[0]?.headers()['retry-after']).toBe('10');
  // The next journey's strangers come from the same address.
  await works.killServer();
});

test('only a signed job has a certificate, in A4 and in Letter', async ({ request, works }) => {
  const [{ open, closed } = { open: 0, closed: 0 }] = await works.query<{ open: number; closed: number }>(
    `select max(id) filter (where signed_at is null)::int as open, max(id) filter (where stage = 'closed' and reason <> 'hot check')::int as closed
     from job`,
  );
  const headers = { cookie: await works.cookieOf('Auditor') };
  expect((await request.get(`/jobs/${open}/certificate`, { headers })).status()).toBe(409);
  const size = async (paper: string) => {
    const body = await (await request.get(`/jobs/${closed}/certificate?paper=${paper}`, { headers })).body();
    return /MediaBox \[0 0 ([\d.]+) ([\d.]+)\]/.exec(body.toString('latin1'))?.slice(1).map(Number);
  };
  expect((await size('a4'))?.map(Math.round)).toEqual([595, 842]);
  expect((await size('letter'))?.map(Math.round)).toEqual([612, 792]);
});
