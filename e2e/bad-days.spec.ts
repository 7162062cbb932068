import type { Page } from '@playwright/test';
import { beginAsFound, comeAs, savedLine, untilItListens, workAs } from './support/hands';
import { expect, test, type Works } from './support/works';

const TAG = 'PT-3302';

async function typeReadings(page: Page, ...readings: string[]): Promise<void> {
  for (const reading of readings) {
    await page.keyboard.type(reading);
    await page.keyboard.press('Enter');
  }
}

const savedReadings = (works: Works) =>
  works.query<{ position: number; text: string; by: string; superseded: boolean }>(
    `select position, output_text as text, person.name as by,
       exists (select from reading later where later.supersedes = reading.id) as superseded
     from reading join person on person.id = read_by
     where run_id = (select max(id) from run) order by reading.id`,
  );

/** Where the run is at whose beginning each of these stands: walked to by the pages once, by each of those who go these ways. */
let beginning: string | null = null;

test.beforeEach(async ({ page, works }) => {
  if (beginning === null) {
    await comeAs(page, 'Technician A');
    await beginAsFound(page, TAG);
    await works.keepScene();
    beginning = new URL(page.url()).pathname;
  } else {
    await works.renew('scene');
    // Who walked there has left the desk; only now does no page of theirs take it again.
    await works.query('delete from desk');
    await comeAs(page, 'Technician A');
  }
  await page.goto(beginning);
  const field = page.getByRole('textbox', { name: 'Reading at 0 % rising' });
  // The browser gives it the focus before the page listens.
  await untilItListens(field);
  await expect(field).toBeFocused();
});

test('digits that are typed before the page listens stay there, and outlast a reload', async ({ page }) => {
  // The page is there, and its scripts are on their way.
  let arrive = (): void => undefined;
  const arrived = new Promise<void>((resolve) => (arrive = resolve));
  await page.route('**/_next/static/**/*.js', async (route) => {
    await arrived;
    await route.continue();
  });
  await page.reload({ waitUntil: 'commit' });
  const field = page.getByRole('textbox', { name: 'Reading at 0 % rising' });
  await field.click();
  await page.keyboard.type('4.01');
  arrive();
  await untilItListens(field);
  await page.keyboard.type('2');
  await expect(field).toHaveValue('4.012');
  await page.reload();
  await expect(field).toHaveValue('4.012');
});

test('the server is killed in mid-run: entering goes on, nothing is lost, nothing is doubled', async ({
  page,
  works,
}) => {
  await typeReadings(page, '4.010', '8.012', '12.014');
  await expect(savedLine(page)).toHaveText(/^saved /);

  await works.killServer();
  await typeReadings(page, '16.016', '20.018');
  await expect(savedLine(page)).toHaveText('2 not saved yet, kept in this browser, trying again');
  await expect(page.getByRole('alert').filter({ hasText: 'The server does not answer.' })).toBeVisible();
  await page.keyboard.type('16.0');

  await works.startServer();
  await expect(savedLine(page)).toHaveText(/^saved /);
  expect((await savedReadings(works)).map(({ text }) => text)).toEqual([
    '4.010',
    '8.012',
    '12.014',
    '16.016',
    '20.018',
  ]);

  // The digits that were typed and not entered are there too, and the run goes on.
  await expect(page.getByRole('textbox', { name: 'Reading at 75 % falling' })).toHaveValue('16.0');
  await page.reload();
  const field = page.getByRole('textbox', { name: 'Reading at 75 % falling' });
  await expect(field).toHaveValue('16.0');
  await field.press('End');
  await typeReadings(page, '19', '12.015', '8.013', '4.011');
  await page.getByRole('button', { name: 'Judge' }).press('Enter');
  await expect(page.getByRole('region', { name: 'Readings as found' }).getByRole('row')).toHaveCount(10);
  expect((await savedReadings(works)).map(({ text }) => text)).toHaveLength(9);
});

test('a tab closed while the server is away sends its readings when it is opened again', async ({
  page,
  works,
  context,
}) => {
  await typeReadings(page, '4.010');
  await expect(savedLine(page)).toHaveText(/^saved /);
  await works.killServer();
  await typeReadings(page, '8.012', '12.014');
  await expect(savedLine(page)).toContainText('2 not saved yet');
  const address = page.url();
  await page.close();

  await works.startServer();
  const again = await context.newPage();
  await again.goto(address);
  await expect(savedLine(again)).toHaveText(/^saved /);
  await expect(again.getByRole('textbox', { name: 'Reading at 75 % rising' })).toBeFocused();
  const texts = async () => (await savedReadings(works)).map(({ text }) => text);
  await expect.poll(texts).toEqual(['4.010', '8.012', '12.014']);
});

test('a second tab on the same run keeps what the first has not sent yet', async ({
  page,
  works,
  context,
}) => {
  await typeReadings(page, '4.010');
  await expect(savedLine(page)).toHaveText(/^saved /);
  const second = await context.newPage();
  await second.goto(page.url());
  await expect(second.getByRole('textbox', { name: 'Reading at 25 % rising' })).toBeFocused();
  await works.killServer();
  await page.bringToFront();
  await typeReadings(page, '8.012');
  await expect(savedLine(page)).toContainText('1 not saved yet');
  await expect(savedLine(second)).toContainText('1 not saved yet');
  await second.bringToFront();
  await second.keyboard.type('12');
  const address = page.url();
  await page.close();
  await works.startServer();
  await second.goto(address);
  const texts = async () => (await savedReadings(works)).map(({ text }) => text);
  await expect.poll(texts).toEqual(['4.010', '8.012']);
});

test('a reading whose answer was lost is kept once', async ({ page, works }) => {
  // The server keeps the first one; its answer never arrives.
  let isFirst = true;
  await page.route('**/readings', async (route) => {
    if (!isFirst) return route.continue();
    isFirst = false;
    await route.fetch();
    await route.abort('connectionreset');
  });
  await typeReadings(page, '4.010', '8.012');
  await expect(savedLine(page)).toHaveText(/^saved /);
  expect((await savedReadings(works)).map(({ text }) => text)).toEqual(['4.010', '8.012']);
});

test('a reading is corrected; the earlier one stays in the record', async ({ page, works }) => {
  await typeReadings(page, '4.010', '8.210');
  await expect(savedLine(page)).toHaveText(/^saved /);
  await page.keyboard.press('ArrowUp');
  const field = page.getByRole('textbox', { name: 'Reading at 25 % rising' });
  await expect(field).toBeFocused();
  await expect(field).toHaveValue('8.210');
  await typeReadings(page, '8.021');
  await expect(page.getByRole('textbox', { name: 'Reading at 50 % rising' })).toBeFocused();
  await expect(savedLine(page)).toHaveText(/^saved /);
  await expect
    .poll(() => savedReadings(works))
    .toMatchObject([
      { text: '4.010', superseded: false },
      { text: '8.210', superseded: true },
      { text: '8.021', superseded: false },
    ]);
  const job = /jobs\/(\d+)/.exec(page.url())?.[1] ?? '';
  await page.goto(`/jobs/${job}/record`);
  await expect(page.getByText('Corrected since and kept: point 2 read 8.210')).toBeVisible();
});

test('the value read at the reference counts, not the nominal one', async ({ page, works }) => {
  await typeReadings(page, '4.000');
  await page.keyboard.press('a');
  const applied = page.getByRole('textbox', { name: 'Applied value at 25 % rising' });
  await expect(applied).toBeFocused();
  await applied.fill('101,0');
  await expect(page.getByText('Expect for 101 mbar')).toBeVisible();
  await page.keyboard.press('Enter');
  await typeReadings(page, '8.040');
  await expect(page.getByRole('listitem').filter({ hasText: '8.040' })).toContainText('0.000 %');
  await expect(savedLine(page)).toHaveText(/^saved /);
  const [, second] = await works.query<{ text: string; as: string }>(
    `select applied_text as text, applied_as as as from reading where run_id = (select max(id) from run) order by id`,
  );
  expect(second).toEqual({ text: '101,0', as: 'read' });
});

test('what is not a number is answered at the field, and stays', async ({ page, works }) => {
  const field = page.getByRole('textbox', { name: 'Reading at 0 % rising' });
  await typeReadings(page, '4.0.1');
  await expect(page.getByRole('alert').filter({ hasText: 'more than one decimal sign' })).toBeVisible();
  await expect(field).toHaveValue('4.0.1');
  await field.fill('');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'Type a number.' })).toBeVisible();
  expect(await savedReadings(works)).toEqual([]);
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog', { name: 'Keys of a run' })).toBeVisible();
});

test('a second person takes over; what the first one goes on typing is refused, shown and not lost', async ({
  page,
  works,
  browser,
}) => {
  const other = await browser.newContext({ baseURL: works.url });
  const second = await other.newPage();
  await second.goto('/');
  await workAs(second, 'Technician B', page.url());
  await expect(second.getByText(/^Technician A is at this job since/)).toBeVisible();

  // The first browser hears nothing of it for a while.
  await page.route('**/desk', (route) => route.abort());
  await second.getByRole('button', { name: 'Take the job over' }).click();
  await expect(second.getByRole('textbox', { name: 'Reading at 0 % rising' })).toBeFocused();
  await typeReadings(second, '4.110');
  await expect(savedLine(second)).toHaveText(/^saved /);
  await typeReadings(page, '4.010');
  await expect(
    page.getByRole('alert').filter({ hasText: 'Technician B has taken this job over' }),
  ).toBeVisible();
  expect((await savedReadings(works)).map(({ text, by }) => `${text} ${by}`)).toEqual(['4.110 Technician B']);
  // What the first one typed is still there, as a draft.
  await page.getByRole('button', { name: 'Go to 0 % rising' }).click();
  await expect(page.getByRole('textbox', { name: 'Reading at 0 % rising' })).toHaveValue('4.010');
  await other.close();
});
