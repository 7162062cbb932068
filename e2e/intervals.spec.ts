/** History and intervals, as a planner works through them. */
import { readFile } from 'node:fs/promises';
import { comeAs, Keyboard, workAs } from './support/hands';
import { expect, test } from './support/works';

test('a planner has all advice worked out, takes one by keyboard alone, and the due date follows', async ({
  page,
  works,
}) => {
  await works.query('delete from interval_advice; delete from family_count');
  await workAs(page, 'Planner', '/insight/intervals');
  const keys = new Keyboard(page);
  await expect(page.getByText('No instrument here.', { exact: false })).toBeVisible();
  await page.getByRole('button', { name: 'Work out anew' }).focus();
  await keys.press('Enter');
  const table = page.getByRole('table');
  await expect(table.getByRole('link', { name: 'LT-6010' })).toBeVisible({ timeout: 30_000 });
  await expect(page.getByRole('button', { name: 'Work out anew' })).toBeVisible();
  await expect(page.getByText(/^Worked out .*, asked for by Planner\.$/)).toBeVisible();
  await expect(
    page.getByText(/With PC-00 errors come out \d+ % of the limit higher than with PC-01, PC-05/),
  ).toBeVisible();

  await page.getByRole('link', { name: /^Shorter \d/ }).focus();
  await keys.press('Enter');
  await expect(page).toHaveURL(/kind=shorter/);
  await expect(table.getByRole('link', { name: 'PT-1204' })).toBeHidden();
  await table.getByRole('link', { name: 'LT-6010' }).focus();
  await keys.press('Enter');
  await expect(page.getByRole('heading', { name: 'LT-6010: history' })).toBeVisible();
  const sheet = page.getByRole('region', { name: 'Interval: 12 months, advised 3' });
  await expect(
    sheet.getByText(/it would be found inside with .* only; the works asks for 95\.0/),
  ).toBeVisible();
  const row = (months: string) => sheet.getByRole('row', { name: new RegExp(`^${months} `) });
  await expect(row('12')).toContainText('1');
  await expect(row('3')).toContainText('4');

  const take = sheet.getByRole('button', { name: 'Take 3 months' });
  await take.focus();
  await keys.press('Enter');
  await expect(page.getByText('Say why: a change of interval keeps its reason.')).toBeVisible();
  await sheet.getByRole('textbox', { name: 'Reason' }).focus();
  await keys.type('found outside twice');
  await page.reload();
  await expect(sheet.getByRole('textbox', { name: 'Reason' })).toHaveValue('found outside twice');
  await sheet.getByRole('textbox', { name: 'Reason' }).focus();
  await keys.press('Enter');
  const changes = page.getByRole('region', { name: 'Changes of the interval' });
  await expect(
    changes.getByRole('row', { name: /12 months 3 months Planner found outside twice/ }),
  ).toBeVisible();
  const [due] = await works.query<{ due: string; left: string }>(
    `select to_char(due_on, 'YYYY-MM-DD') as due,
       to_char((select max(done_on) from result where instrument_id = instrument.id and is_left)
         + interval '3 months', 'YYYY-MM-DD') as left
     from instrument where tag = 'LT-6010'`,
  );
  expect(due?.due).toBe(due?.left);
  await page.goto('/insight/intervals?q=LT-6010');
  await expect(table.getByRole('row', { name: /LT-6010.* 3 taken/ })).toBeVisible();
});

test('a calculation is watched and stopped, and what it had advised stands', async ({ page, works }) => {
  await comeAs(page, 'Planner');
  // Whoever works it through is away: it stands where it is.
  await works.query(
    `insert into interval_calculation (asked_by, asked_at, beat_at, done, total)
     select id, now(), now(), 20, 60 from person where name = 'Planner'`,
  );
  await page.goto('/insight/intervals');
  await expect(page.getByText('20 of 60 instruments')).toBeVisible();
  await works.query(`update interval_calculation set done = 40 where state = 'runs'`);
  await expect(page.getByText('40 of 60 instruments')).toBeVisible();
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByText(/The last one was stopped after 40 instruments/)).toBeVisible();
  await expect(page.getByRole('table').getByRole('link', { name: 'LT-6010' })).toBeVisible();
  await workAs(page, 'Technician A', '/insight/intervals');
  await expect(page.getByRole('heading', { name: 'Intervals' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Work out anew' })).toBeHidden();
});

test('a history tells drift from adjustments, compares two runs, names what is worth a look, and comes out as a table', async ({
  page,
}) => {
  await workAs(page, 'Technician A', '/instruments/PT-2107');
  await page.getByRole('link', { name: 'History and interval' }).click();
  await expect(
    page.getByRole('img', { name: /^History of 8 calibrations: \d+ readings as found/ }),
  ).toBeVisible();
  const drift = page.getByRole('region', { name: 'Drift, adjustments taken out' });
  await expect(drift.getByRole('row', { name: /^zero 7 \+0\.1\d\d % \+0\.1\d\d %$/ })).toBeVisible();
  await expect(drift.getByText(/stay inside until/)).toBeVisible();
  await drift.getByRole('button', { name: /^Show the working of the drift/ }).click();
  await expect(
    drift.getByRole('region', { name: /^Working of the drift/ }).getByText('Found inside at the end'),
  ).toBeVisible();
  await expect(page.getByText('A planner decides on the interval.')).toBeVisible();

  const compare = page.getByRole('region', { name: 'Two runs in one corridor' });
  const second = compare.getByRole('combobox', { name: 'Second run' });
  await second.click();
  await page
    .getByRole('option', { name: /as left$/ })
    .first()
    .click();
  await expect(second).toHaveText(/as left$/);
  await expect(
    compare.getByRole('row', { name: /^0 % rising \+0\.\d{3} .?0\.\d{3} .?0\.\d{3}$/ }),
  ).toBeVisible();
  await expect(compare.getByRole('img', { name: /^Corridor of errors: 18 readings/ })).toBeVisible();

  const all = page.getByRole('region', { name: 'All calibrations' });
  await expect(
    all.getByRole('row', { name: /as left within .*sensor trim 4\.\d+ → 4\.\d+; sensor trim/ }),
  ).toBeVisible();
  const file = page.waitForEvent('download');
  await page.getByRole('link', { name: 'CSV', exact: true }).click();
  const csv = await readFile(await (await file).path(), 'utf8');
  expect(csv.split('\n')[0]).toContain('Tag,Date,Run,Job,Range,"Point, %",Direction,"Error, % of span"');
  expect(csv).toMatch(/PT-2107,\d{4}-\d\d-\d\d,as found,\d{4},0 … 6 bar → 4 … 20 mA,100,rising,/);

  await page.goto('/instruments/PDT-2203/history');
  await expect(page.getByText(/Its drift changed when PC-05 took over from PC-01/)).toBeVisible();
  await page.goto('/instruments/PI-1301/history');
  await expect(page.getByText(/Its hysteresis grows by/)).toBeVisible();
  await page.goto('/instruments/FT-1305/history');
  await expect(page.getByText(/A step of \+0\.1\d % of span beyond its own drift/)).toBeVisible();
  await page.goto('/instruments/PT-9002/history');
  await expect(page.getByText(/^Nothing yet\. Each signed job leaves its calibration here/)).toBeVisible();
});

test('of a safety function only who is entrusted changes the interval, up to its cap', async ({ page }) => {
  await workAs(page, 'Administrator', '/instruments/PT-5102/history');
  await expect(page.getByText(/only who is entrusted with their intervals changes it/)).toBeVisible();
  await page.goto('/office/people');
  await page.getByRole('link', { name: 'Administrator' }).click();
  await page.getByRole('combobox', { name: 'Intervals of safety functions' }).click();
  await page.getByRole('option', { name: 'is entrusted with them' }).click();
  await page.getByRole('button', { name: 'Keep the changes' }).click();
  await expect(
    page.getByRole('row', { name: /Administrator administrator .* works here entrusted/ }),
  ).toBeVisible();

  await page.goto('/office/settings');
  const policy = page.getByRole('region', { name: 'Intervals' });
  await policy.getByLabel('safety function: found inside, %').fill('99,5');
  await policy.getByLabel('Longest interval, months').first().fill('0');
  await policy.getByRole('button', { name: 'Keep for safety function' }).click();
  await expect(policy.getByText('The longest interval is from 1 to 120 months.')).toBeVisible();
  await policy.getByLabel('Longest interval, months').first().fill('9');
  await policy.getByRole('button', { name: 'Keep for safety function' }).click();
  await expect(policy.getByRole('status').filter({ hasText: 'Kept.' })).toBeVisible();

  await page.goto('/instruments/PT-5102/history');
  await expect(page.getByText(/Criticality safety function: at most 9 months, 99\.5/)).toBeVisible();
  await page.getByRole('combobox', { name: 'New interval' }).click();
  await expect(page.getByRole('option', { name: /^9 months/ })).toBeVisible();
  await expect(page.getByRole('option', { name: /^12 months/ })).toBeHidden();
  await page.getByRole('option', { name: /^9 months/ }).click();
  await page.getByRole('textbox', { name: 'Reason' }).fill('nine years without a step');
  await page.getByRole('button', { name: 'Take 9 months' }).click();
  await expect(page.getByRole('row', { name: /6 months 9 months Administrator nine years/ })).toBeVisible();
});
