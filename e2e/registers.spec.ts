import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import { fillConnection, signInAs, skipToConnect, tellOfRange, workAs } from './support/hands';
import { pagesOfPdf } from './support/pdf';
import { expect, test } from './support/works';

const choose = async (page: Page, label: string, option: string | RegExp) => {
  await page.getByRole('combobox', { name: label, exact: true }).click();
  await page.getByRole('option', { name: option }).click();
};

/** Fields of a form by their label. */
async function fill(page: Page, fields: Readonly<Record<string, string>>): Promise<void> {
  for (const [label, text] of Object.entries(fields))
    await page.getByLabel(label, { exact: true }).fill(text);
}

const BACK = 'What you typed here before, and did not send, is back.';

test('the list is found, filtered, kept as a view, and several instruments are handled at once', async ({
  page,
}) => {
  await workAs(page, 'Technician A', '/instruments');
  const grid = page.getByRole('table', { name: 'Instruments' });
  await page.getByLabel('Find by any part').fill('syrup level');
  await expect(grid.getByRole('row')).toHaveCount(2);
  await expect(grid.getByRole('link', { name: 'LT-2401' })).toBeVisible();
  await page.getByRole('button', { name: 'Show all' }).click();
  await choose(page, 'Area', 'Lime kiln');
  await expect(grid.getByRole('link', { name: 'LT-3320' })).toBeVisible();
  await expect(page).toHaveURL(/area=Lime\+kiln/);

  await page.getByRole('button', { name: 'Keep this view' }).click();
  await page.getByLabel('Name of this view').fill('Kiln round');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await page.getByRole('button', { name: 'Show all' }).click();
  await page.getByRole('link', { name: 'Kiln round' }).click();
  await expect(grid.getByRole('link', { name: 'LT-3320' })).toBeVisible();

  const all = grid.getByRole('checkbox', { name: 'Choose all on this page' });
  await grid.getByRole('checkbox', { name: 'Choose LT-3320' }).check();
  await expect(page.getByText('1 chosen')).toBeVisible();
  await expect(all).toBeChecked({ indeterminate: true });
  await all.check();
  await expect(grid.getByRole('checkbox', { name: 'Choose LT-3320' })).toBeChecked();
  await page.getByRole('combobox', { name: 'Owner' }).last().fill('Kiln crew');
  await page.getByRole('button', { name: 'Assign' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'Assigned to Kiln crew.' })).toBeVisible();
  await expect(grid.getByText('Kiln crew').first()).toBeVisible();
  await page.getByRole('button', { name: 'Open jobs' }).click();
  await expect(page.getByRole('status').filter({ hasText: /jobs opened\./ })).toBeVisible();

  const labels = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Print labels' }).evaluate((link: HTMLAnchorElement) => {
    link.removeAttribute('target');
    link.click();
  });
  const [sheet = ''] = await pagesOfPdf(await (await labels).path());
  expect(sheet).toContain('LT-3320');
  expect(sheet).toContain('PT-3302');
});

test('an instrument is entered, configured anew, and its versions are compared', async ({ page }) => {
  await workAs(page, 'Technician B', '/instruments/new');
  await fill(page, {
    Tag: 'PT-7001',
    Service: 'Test line, pressure',
    Area: 'Water station',
    LRV: '0',
    URV: '60',
  });
  await choose(page, 'Body', 'Gauge cell 16 bar');
  await page.getByRole('combobox', { name: 'Input in' }).fill('inH2O');
  await page.keyboard.press('Tab');
  await expect(page.getByText(/can mean|which/i).first()).toBeVisible();
  await page.getByRole('combobox', { name: 'Input in' }).fill('bar');
  await page.keyboard.press('Tab');
  await page.getByRole('button', { name: 'Add the instrument' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'outside the limits of the body' })).toBeVisible();
  // A reload loses nothing of what is not kept yet, neither fields nor choices.
  await page.reload();
  await expect(page.getByText(BACK)).toBeVisible();
  await expect(page.getByLabel('Service', { exact: true })).toHaveValue('Test line, pressure');
  await expect(page.getByText('body: Gauge cell 16 bar')).toBeVisible();
  await expect(page.getByRole('combobox', { name: 'Input in' })).toHaveValue('bar');
  await page.getByLabel('URV', { exact: true }).fill('6');
  await page.getByRole('button', { name: 'Add the instrument' }).click();
  await expect(page.getByRole('heading', { name: /PT-7001/ })).toBeVisible();

  await page.getByRole('link', { name: 'New configuration' }).click();
  await page.getByLabel('URV', { exact: true }).fill('4');
  await page.getByRole('button', { name: 'Put this version in force' }).click();
  await expect(page.getByText('Say why: the reason stays with this version.')).toBeVisible();
  await page.getByLabel('Why', { exact: true }).fill('pump changed');
  await page.getByRole('button', { name: 'Put this version in force' }).click();
  await expect(page.getByText(/Another range asks more. Not answered yet: Permit/)).toBeVisible();
  await tellOfRange(page);
  await page.getByRole('button', { name: 'Put this version in force' }).click();
  await page.getByRole('link', { name: 'Compare versions' }).click();
  await expect(page.getByRole('img', { name: /0 to 6 bar gives 4 to 20 mA/ })).toBeVisible();
  await expect(page.getByRole('img', { name: /0 to 4 bar gives 4 to 20 mA/ })).toBeVisible();
  await expect(page.getByRole('row', { name: /Why first entry pump changed/ })).toBeVisible();

  await page.goto('/instruments/new');
  await expect(page.getByLabel('Service', { exact: true })).toHaveValue('');
  await page.goto('/instruments/PT-7001/edit');
  await fill(page, { Owner: 'Somebody' });
  await page.reload();
  await expect(page.getByLabel('Owner', { exact: true })).toHaveValue('Somebody');
  await page.getByRole('button', { name: 'Begin anew' }).click();
  await expect(page.getByText(BACK)).toBeHidden();
  await expect(page.getByLabel('Owner', { exact: true })).toHaveValue('');
  await fill(page, { Owner: 'Night crew', Hazards: 'toxic; hot' });
  await page.getByRole('button', { name: 'Keep the changes' }).click();
  await expect(page.getByText('toxic; hot')).toBeVisible();
});

test('a reference gets a certificate with its file, and one found wrong has its runs decided', async ({
  page,
}) => {
  await workAs(page, 'Technician A', '/references/DW-01?instrument=PT-2107');
  await expect(page.getByText(/it does not fit: its certificate ran out/)).toBeVisible();
  await page.getByText('Enter a new certificate').click();
  await fill(page, {
    'Number of the certificate': 'K-26-0999',
    'Calibrated on': '2026-11-01',
    Due: '2026-10-01',
  });
  await page.getByRole('button', { name: 'Enter the certificate' }).click();
  await expect(page.getByText('The due date is after the day of calibration.')).toBeVisible();
  await page.getByLabel('Due', { exact: true }).fill('2029-11-01');
  const points = page.getByLabel(/^Points of .*: reading; correction; uncertainty/);
  await points.fill('0; 0; 0.0001\n10; 0.0002');
  await page.getByRole('button', { name: 'Enter the certificate' }).click();
  await expect(page.getByText('Line 2: The expanded uncertainty is a number.')).toBeVisible();
  await points.fill('0; 0; 0.0001\n10; 0.0002; 0.0002');
  await page.getByLabel('File of the certificate').setInputFiles({
    name: 'K-26-0999.pdf',
    mimeType: 'application/pdf',
    buffer: Buffer.from('%PDF-1.7 made up'),
  });
  await page.getByRole('button', { name: 'Enter the certificate' }).click();
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'K-26-0999.pdf' }).click();
  expect(await readFile(await (await download).path(), 'utf8')).toBe('%PDF-1.7 made up');
  await expect(page.getByText(/it does not fit/)).toBeHidden();
  await expect(page.getByRole('region', { name: 'Results of K-26-0999' }).getByRole('row')).toHaveText([
    /Reading, .*Correction.*U, k = 2/,
    '00.00000.0001',
    '100.00020.0002',
  ]);

  await page.goto('/instruments/PT-2107/references');
  await expect(
    page.getByRole('region', { name: 'References for the input' }).getByRole('row').nth(1),
  ).toContainText('DW-01');

  await page.goto('/references/DM-01');
  await page
    .getByRole('link', { name: /\d{4}$/ })
    .first()
    .click();
  await expect(page.getByText(/^\d\d runs, \d+ with another verdict, \d+ to decide/)).toBeVisible();
  const row = page.getByRole('row', { name: /PT-4410/ }).first();
  await row.getByRole('checkbox').check();
  await page.getByRole('button', { name: 'note' }).click();
  await expect(page.getByText('Say why: a note has to say something.')).toBeVisible();
  await page.getByLabel('Remark').fill('not in service then');
  await page.getByRole('button', { name: 'note' }).click();
  await expect(row.getByText('note, Technician A: not in service then')).toBeVisible();
  await row.getByRole('checkbox').check();
  await page.getByRole('button', { name: 'recall' }).click();
  await expect(row.getByText('recall, Technician A')).toBeVisible();
  // The rest at once; its records say so from then on.
  await page.getByRole('button', { name: /^Tick all \d+ to decide/ }).click();
  await page.getByLabel('Remark').fill('far below the limit');
  await page.getByRole('button', { name: 'no effect' }).click();
  await expect(page.getByRole('button', { name: 'Tick all 0 to decide' })).toBeVisible();
  await page
    .getByRole('link', { name: /^job \d+$/ })
    .last()
    .click();
  await expect(page.getByText(/^DM-01 was found out of tolerance on .*: no effect/)).toBeVisible();
  await page.goto('/instruments/PT-4410');
  await expect(page.getByText(/\(today\)/)).toBeVisible();
});

test('a procedure gets a new version, and the next run walks it', async ({ page }) => {
  await workAs(page, 'Technician A', '/office/procedures');
  await page.getByRole('link', { name: 'Five points up and down' }).click();
  await page.getByLabel('Points', { exact: true }).fill('0; 50; 100');
  await page.getByLabel('Cycles', { exact: true }).fill('2');
  await page.getByLabel('Why this version', { exact: true }).fill('quicker, twice');
  await page.getByRole('button', { name: 'Put this version in force' }).click();
  await expect(
    page.getByText('Version 2 is in force: 0, 50, 100 % of input, up and down, 2 cycles'),
  ).toBeVisible();
  await page.goto('/instruments/PT-2107');
  await page.getByRole('button', { name: 'Start a job' }).click();
  await expect(page.getByText('Five points up and down, version 2')).toBeVisible();
  await skipToConnect(page);
  await fillConnection(page);
  await page
    .getByRole('button', { name: /weaker or do(es)? not fit/ })
    .first()
    .click();
  await page.getByRole('radio', { name: /DW-01/ }).check();
  await page.getByRole('button', { name: 'Connected, begin as found' }).click();
  await expect(page.getByText(/DW-01 does not fit: its certificate ran out/)).toBeVisible();
  await page.getByLabel('If one that does not fit is used: why').fill('checked against PC-01 today');
  await page.getByRole('button', { name: 'Connected, begin as found' }).click();
  await expect(page.getByText('Cycle 1 of 2')).toBeVisible();
  await page.getByRole('textbox', { name: 'Reading at 0 % rising' }).waitFor();
  for (const text of ['4.001', '12.001', '20.001', '12.002', '4.002']) {
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
  }
  await expect(page.getByText('Cycle 2 of 2')).toBeVisible();
});

const OWN = 'seven grey herons stood';

test('people sign in with a password of their own, and a change of role ends their session', async ({
  page,
  browser,
  works,
}) => {
  await workAs(page, 'Administrator', '/office/people/new');
  await fill(page, { Name: 'Technician C', Login: 'tech.c', 'New password': 'short' });
  await page.getByRole('button', { name: 'Add the person' }).click();
  await expect(page.getByText(/at least 10 characters/)).toBeVisible();
  await page.getByLabel('New password', { exact: true }).fill('four plain words');
  await page.getByRole('button', { name: 'Add the person' }).click();
  await expect(
    page.getByRole('row', { name: /Technician C technician tech\.c set works here/ }),
  ).toBeVisible();

  const context = await browser.newContext({ baseURL: works.url });
  const own = await context.newPage();
  await own.goto('/instruments/PT-2107');
  await fill(own, { Login: 'tech.c', Password: 'wrong words' });
  await own.getByRole('button', { name: 'Sign in', exact: true }).click();
  await expect(own.getByText('Login and password do not belong together.')).toBeVisible();
  await fill(own, { Password: 'four plain words' });
  await own.getByRole('button', { name: 'Sign in', exact: true }).click();
  // Nothing else is done before the password is one's own.
  await expect(own.getByText('Somebody else has set your password.')).toBeVisible();
  await own.goto('/instruments/PT-2107');
  await expect(own).toHaveURL(/\/account$/);
  const changed = {
    'Password until now': 'four plain words',
    'New password': 'password123',
    'The same again': 'password123',
  };
  await fill(own, changed);
  await own.getByRole('button', { name: 'Change the password' }).click();
  await expect(own.getByText('This password would be guessed: it is a common password.')).toBeVisible();
  await fill(own, { 'New password': OWN, 'The same again': OWN });
  await own.getByRole('button', { name: 'Change the password' }).click();
  await expect(own).toHaveURL(/\/sign-in/);
  await fill(own, { Login: 'tech.c', Password: OWN });
  await own.getByRole('button', { name: 'Sign in', exact: true }).click();
  await own.waitForURL((url) => url.pathname === '/');

  // A signature asks for the password again: PT-1310 waits for one.
  const [atSign] = await works.query<{ id: number }>(`select id::int from job where stage = 'sign'`);
  await own.goto(`/jobs/${atSign?.id ?? 0}/sign`);
  await own.getByLabel('Your password again').fill('a guess or two');
  await own.getByRole('button', { name: 'Sign as Technician C' }).click();
  await expect(own.getByText('Login and password do not belong together.')).toBeVisible();
  await own.getByLabel('Your password again').fill(OWN);
  await own.getByRole('button', { name: 'Sign as Technician C' }).click();
  await expect(own).toHaveURL(/\/record$/);

  await own.goto('/account');
  await fill(own, { 'What it is for': 'historian' });
  await own.getByRole('button', { name: 'Make a token' }).click();
  const token = await own.getByText(/^barys_/).textContent();
  const ask = (headers: Record<string, string>) => own.request.get('/api/v1/export', { headers });
  const other = await browser.newContext({ baseURL: works.url });
  const bearer = { authorization: `Bearer ${token}` };
  expect((await other.request.get('/api/v1/export')).status()).toBe(401);
  expect((await other.request.get('/api/v1/export', { headers: bearer })).status()).toBe(200);
  expect((await other.request.get(`/calendar.ics?token=${token}`)).status()).toBe(200);
  expect((await other.request.get('/calendar.ics?token=none')).status()).toBe(401);
  // A reading token does not act.
  const act = await other.request.post('/api/v1/runs/1/readings', { data: {}, headers: bearer });
  expect([401, 422]).toContain(act.status());
  expect((await ask({})).status()).toBe(200);

  await page.getByRole('link', { name: 'Technician C' }).click();
  await choose(page, 'Role', 'auditor');
  await page.getByRole('button', { name: 'Keep the changes' }).click();
  await expect(page.getByRole('row', { name: /Technician C auditor/ })).toBeVisible();
  await own.goto('/instruments/PT-2107');
  await expect(own).toHaveURL(/\/sign-in/);
  await context.close();
  await other.close();
});

test('a file is looked at, asked about, and taken over; the rest comes back with the reason', async ({
  page,
}) => {
  await workAs(page, 'Administrator', '/office/import');
  const rows = [
    'Tag;Service;Area;Model;Min;Max;EU;Next due',
    'PT-8001;Feed pump;Water station;Gauge cell 16 bar;0;6;bar;31.12.2026',
    'PT-8002;Filter;Water station;Gauge cell 400 mbar;0;100;inH2O;31.12.2026',
    'PT-8003;Feed pump;Water station;Gauge cell 16 bar;0;60;bar;31.12.2026',
    'PT-2107;Feed pump;Water station;Gauge cell 16 bar;0;6;bar;31.12.2026',
  ];
  await page.getByLabel('CSV file').setInputFiles({
    name: 'new.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(`\uFEFF${rows.join('\r\n')}`),
  });
  await page.getByRole('button', { name: 'Look at it' }).click();
  await expect(page.getByText('new.csv: 4 rows, semicolons, UTF-8')).toBeVisible();
  await page.getByRole('button', { name: 'Check all rows' }).click();
  await expect(
    page.getByText('1 row to import, 1 row already there and left alone, 2 rows not good.'),
  ).toBeVisible();
  await choose(page, '“inH2O” in 1 row: which is meant?', 'inH2O at 4 °C');
  await page.getByRole('button', { name: 'Check all rows' }).click();
  await expect(page.getByText('2 rows to import')).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: /as a file with the reason/ }).click();
  const back = await readFile(await (await download).path(), 'utf8');
  expect(back).toContain('PT-8003');
  expect(back).toContain('outside the limits of the body');
  await page.getByRole('button', { name: 'All or none' }).click();
  await expect(page.getByText('Nothing was imported: 1 row is not good.')).toBeVisible();
  await page.getByRole('button', { name: 'Check all rows' }).click();
  await page.getByRole('button', { name: 'Import the 2 rows that are good' }).click();
  await expect(page.getByText('2 rows imported.')).toBeVisible();
  await page.goto('/instruments/PT-8002');
  await expect(page.getByText('inH2O at 4 °C').first()).toBeVisible();

  for (const [path, name] of [
    ['/instruments/export?area=Water+station', 'PT-8001'],
    ['/office/export/references', 'PC-02'],
    ['/office/export/jobs', 'PT-1310'],
    ['/office/export/bodies', 'Gauge cell 16 bar'],
    ['/office/export/procedures', 'Dial gauge'],
    ['/office/export/people', 'Technician B'],
    ['/office/trail/export?act=import+file', 'new.csv'],
    ['/calendar.ics', 'Calibrate PT-8001'],
  ] as const) {
    const answer = await page.request.get(path);
    expect(answer.status(), path).toBe(200);
    expect(await answer.text(), path).toContain(name);
  }
  const [, ...calendar] = (await (await page.request.get('/calendar.ics')).text()).split('BEGIN:VEVENT');
  expect(calendar.length).toBeGreaterThan(50);
  expect(calendar[0]).toMatch(/DTSTART;VALUE=DATE:\d{8}/);
});

test('the trail tells every act, filters it, and is checked against the records', async ({ page, works }) => {
  await signInAs(page, 'Auditor');
  await page.goto('/office/trail?object=PT-2107');
  await expect(page.getByRole('cell', { name: 'configure instrument' }).first()).toBeVisible();
  await page.getByLabel('Act').selectOption('sign in');
  await page.getByLabel('Tag or number').fill('');
  await page.getByRole('button', { name: 'Show' }).click();
  await expect(page.getByRole('row', { name: /Auditor sign in/ })).toBeVisible();
  const check = page.getByRole('button', { name: 'Check the trail' });
  const told = page.getByRole('status').filter({ hasText: 'as it was written' });
  await check.click();
  await expect(told).toContainText(/^All is as it was written: \d+ seals?, [\d,]+ entries, [\d,]+ records/);
  // The owner of the tables makes a reading of a signed job look better.
  await works.query(`alter table reading disable trigger user`);
  await works.query(`update reading set output_text = '4.001', output = 4.001 where id = 7`);
  await check.click();
  await expect(told).toContainText(/^Not as it was written.*reading 7: output is 4.001 where the trail has/);
});
