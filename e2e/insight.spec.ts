/** Insight: each figure with its table, its files and the list behind it, and the report of a month. */
import { readFile } from 'node:fs/promises';
import { expectAccessible, Keyboard, workAs } from './support/hands';
import { pagesOfPdf } from './support/pdf';
import { expect, test } from './support/works';

test('each figure has a table, comes out as CSV and PNG, and opens the list behind it', async ({ page }) => {
  await workAs(page, 'Planner', '/insight');
  const found = page.getByRole('region', { name: 'Found inside, month by month' });
  await expect(found.getByRole('img', { name: /^Found inside, month by month: \d+ bars/ })).toBeVisible();
  for (const [button, name, begins] of [
    [
      'Found inside, month by month as CSV',
      'found inside.csv',
      '\uFEFFMonth,Calibrations,Outside,Inside,95 % bounds',
    ],
    ['Found inside, month by month as PNG', 'found inside.png', '\u0089PNG'],
  ] as const) {
    const waiting = page.waitForEvent('download');
    await page.getByRole('button', { name: button }).click();
    const file = await waiting;
    expect(file.suggestedFilename()).toBe(name);
    const bytes = await readFile(await file.path());
    expect(bytes.toString(name.endsWith('png') ? 'latin1' : 'utf8')).toContain(begins);
  }
  // By keyboard from the figure to its list.
  const keys = new Keyboard(page);
  const families = page.getByRole('region', { name: 'Worst families' });
  await families.locator('summary').focus();
  await keys.press('Enter');
  const row = families.getByRole('row', { name: /^Force balance, differential \d+ 8 / });
  await expect(row).toBeVisible();
  await row.getByRole('link').focus();
  await keys.press('Enter');
  await expect(page).toHaveURL(/\/insight\/calibrations\?model=Force/);
  await expect(page.getByText('8 runs: as found, outside, Force balance, differential')).toBeVisible();
  await expect(page.getByRole('table').getByRole('row')).toHaveCount(9);
  await expectAccessible(page);

  await page.goto('/insight?months=12');
  await page.getByText('The figures of “Work ahead”').click();
  const ahead = page.getByRole('region', { name: 'Work ahead' });
  const overdue = ahead.getByRole('row', { name: /^overdue \d/ });
  const count = (await overdue.getByRole('cell').nth(1).textContent()) ?? '';
  await overdue.getByRole('link').click();
  await expect(page.getByText(`1 to ${count} of ${count}`)).toBeVisible();
  await page.goBack();
  await page.getByText('The figures of “Work ahead”').click();
  const month = ahead.getByRole('row', { name: /^\w+ 20\d\d [1-9]/ }).first();
  const due = (await month.getByRole('cell').nth(1).textContent()) ?? '';
  await month.getByRole('link').click();
  await expect(page).toHaveURL(/due=20\d\d-\d\d/);
  await expect(page.getByText(`1 to ${due} of ${due}`)).toBeVisible();

  await page.goto('/insight');
  await page.getByText('The figures of “Adjusted most often”').click();
  const adjusted = page
    .getByRole('region', { name: 'Adjusted most often' })
    .getByRole('row', { name: /^Span/ });
  const jobs = (await adjusted.getByRole('cell').nth(1).textContent()) ?? '';
  await adjusted.getByRole('link').click();
  await expect(page.getByText(`${jobs} runs: as found, adjusted: span`)).toBeVisible();
  await page.goto('/insight');
  await page
    .getByRole('link', { name: /instruments$/ })
    .first()
    .click();
  await expect(page).toHaveURL(/\/insight\/intervals\?kind=longer/);
});

test('a month is reported as PDF, A4 and Letter; one that has not come is refused in words', async ({
  page,
}) => {
  await workAs(page, 'Auditor', '/insight');
  const waiting = page.waitForEvent('download');
  await page.getByRole('link', { name: /^Report of .* \(PDF\)$/ }).click();
  const file = await waiting;
  expect(file.suggestedFilename()).toMatch(/^calibrations-\d{4}-\d\d\.pdf$/);
  const text = (await pagesOfPdf(await file.path())).join(' ').replace(/\s+/g, ' ');
  for (const words of [
    'Marrowfen Sugar Works',
    'As found, the twelve months up to its end',
    'Worst families',
    'Force balance, differential',
    'Use of references',
    'instrument-days a year',
    'page 1 of',
  ])
    expect(text).toContain(words);
  const letter = await page.request.get('/insight/report?month=2025-02&paper=letter');
  expect(letter.headers()['content-type']).toBe('application/pdf');
  const wrong = await page.request.get('/insight/report?month=2099-01');
  expect(wrong.status()).toBe(422);
  expect(await wrong.text()).toContain('This month has not come yet.');
  expect((await page.request.get('/insight/report?month=13')).status()).toBe(422);
});

test('a long list of calibrations goes on on its next page', async ({ page }) => {
  await workAs(page, 'Planner', '/insight/calibrations');
  const before = page.getByRole('link', { name: 'Before', exact: true });
  const next = page.getByRole('link', { name: 'Next', exact: true });
  await expect(before).toHaveAttribute('aria-disabled', 'true');
  const first = await page.getByRole('row').nth(1).textContent();
  await next.click();
  await expect(page).toHaveURL(/page=1/);
  await expect(page.getByText(/2 of \d+/)).toBeVisible();
  await expect(page.getByRole('row').nth(1)).not.toHaveText(first ?? '');
  await before.click();
  await expect(page.getByText(/1 of \d+/)).toBeVisible();
});

test('an installation without any calibration says what will stand in Insight', async ({ page, works }) => {
  await works.query(
    `delete from result; delete from family_count; delete from interval_advice; delete from interval_calculation`,
  );
  await workAs(page, 'Planner', '/insight');
  await expect(page.getByText('A family stands here once it has twenty calibrations')).toBeVisible();
  await expect(page.getByText('References stand here once a run was measured with them.')).toBeVisible();
  await page.goto('/insight/families');
  await expect(page.getByText('Counted with the intervals: nothing is worked out yet.')).toBeVisible();
  await page.goto('/insight/calibrations');
  await expect(page.getByText('No calibration is like this.')).toBeVisible();
  await page.goto('/insight/intervals');
  await expect(page.getByText('Nothing is worked out yet. A planner has it done here')).toBeVisible();
});

test('a chart is drawn once the font of its figures is there, also where nothing else asks for it', async ({
  page,
}) => {
  const drawnBefore: number[] = [];
  await page.route(/mono[^/]*\.woff2/i, async (route) => {
    drawnBefore.push(await page.locator('canvas').count());
    await route.continue();
  });
  await workAs(page, 'Planner', '/insight');
  await expect(page.getByRole('img', { name: /^Found inside, month by month: \d+ bars/ })).toBeVisible();
  expect(drawnBefore).toEqual([0]);
});
