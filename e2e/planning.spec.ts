/** The plan of the week: made, changed by keyboard and by finger, walked, printed, subscribed to; and what it goes by. */
import type { Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import { comeAs, expectAccessible, Keyboard, workAs } from './support/hands';
import { expect, test, type Works } from './support/works';

const card = (page: Page, tag: string) => page.getByRole('button', { name: new RegExp(`, ${tag}, `) });
const sheetOf = (page: Page, tag: string) => page.getByRole('region', { name: tag, exact: true });
const clashFree = (page: Page) => page.getByText(/checked: nothing clashes/);

/** Puts one into the plan, so many days from now. */
const plant = (
  works: Works,
  tag: string,
  inDays: number,
  { isFixed = false, references = 'PC-02,DM-01' } = {},
) =>
  works.query(
    `with one as (
       insert into planned (instrument_id, person_id, day, minutes, is_fixed, planned_by, planned_at)
       select instrument.id, technician.id, current_date + ${inDays}, 45, ${isFixed}, technician.id, now()
       from instrument, person technician where tag = '${tag}' and technician.name = 'Technician A' returning id
     )
     insert into planned_reference (planned_id, place, reference_id)
     select one.id, place, standard.id from one, unnest(string_to_array('${references}', ',')) with ordinality as entry (tag, place)
       join reference_standard standard on standard.tag = entry.tag`,
  );

const standing = (works: Works) =>
  works.query<{ tag: string; day: string; name: string; isFixed: boolean }>(
    `select tag, to_char(day, 'YYYY-MM-DD') as day, name, is_fixed as "isFixed" from planned
     join instrument on instrument.id = instrument_id join person on person.id = person_id order by tag`,
  );

/** By keys alone: a button or link is reached and pressed. */
async function press(keys: Keyboard, target: ReturnType<Page['getByRole']>): Promise<void> {
  await target.focus();
  await keys.press('Enter');
}

test('a week is planned, changed, mended and filled up by keyboard', async ({ page, works }) => {
  await works.query('delete from planned; delete from absence');
  await workAs(page, 'Planner', '/planning');
  const keys = new Keyboard(page);
  await press(keys, page.getByRole('link', { name: 'Next week' }));
  await expect(page).toHaveURL(/from=/);
  await expect(page.getByText(/^Nothing stands in this week yet\./)).toBeVisible();
  await press(keys, page.getByRole('button', { name: 'Plan around what is fixed' }));
  await expect(page.getByText(/^Last planned .*, asked for by Planner: \d+ placed\./)).toBeVisible();
  await expect(clashFree(page)).toBeVisible();
  await expect(card(page, 'PT-2107')).toBeVisible();
  const made = await standing(works);
  expect(made.length).toBeGreaterThan(5);
  await expectAccessible(page);

  // Technician B is entered as away on the Thursday; a card that is moved there says so, and where it fits.
  const week = page.url();
  const monday = new URL(week).searchParams.get('from') ?? '';
  const thursday = new Date(Date.parse(monday) + 3 * 86_400_000).toISOString().slice(0, 10);
  await page.goto('/planning/hours');
  const away = page.getByRole('region', { name: 'Away' }).first();
  await away.getByRole('combobox', { name: 'Who is away' }).click();
  await page.getByRole('option', { name: 'Technician B' }).click();
  await away.getByLabel('First day').fill(thursday);
  await away.getByLabel('Last day').fill(monday);
  await press(keys, away.getByRole('button', { name: 'Enter the absence' }));
  await expect(away.getByText(/The last day is the first or one of the 366 after it/)).toBeVisible();
  await away.getByLabel('Last day').fill(thursday);
  await press(keys, away.getByRole('button', { name: 'Enter the absence' }));
  await expect(away.getByRole('row', { name: /^Technician B/ })).toBeVisible();
  await expectAccessible(page);

  await page.goto(week);
  await card(page, 'PT-2107').focus();
  const placeOf = () => card(page, 'PT-2107').locator('xpath=..').getAttribute('aria-label');
  const thursdayOfB = /^Technician B, Thu/;
  for (let moves = 0; moves < 6 && !thursdayOfB.test((await placeOf()) ?? ''); moves += 1) {
    const before = await placeOf();
    await keys.press((before ?? '').startsWith('Technician A') ? 'Alt+ArrowDown' : 'Alt+ArrowRight');
    await expect.poll(placeOf).not.toBe(before);
    await expect(card(page, 'PT-2107')).toBeFocused();
  }
  expect(await placeOf()).toMatch(thursdayOfB);
  const sheet = sheetOf(page, 'PT-2107');
  await expect(sheet.getByText(/^◆ Technician B is not at work on Thu/)).toBeVisible();
  await expect(page.getByText(/checked: \d+ clash, as marked/)).toBeVisible();
  await expect(card(page, 'PT-2107')).toHaveAccessibleName(/, fixed, clashes$/);
  const way = sheet.getByRole('list', { name: 'Where it fits' }).getByRole('button').first();
  await expect(way).toBeVisible();
  await expectAccessible(page);
  await press(keys, way);
  await expect(clashFree(page)).toBeVisible();
  // The button that was pressed is gone: the keyboard goes on at the card.
  await expect(card(page, 'PT-2107')).toBeFocused();

  // What nobody planned is put in by its tag; nothing else moves.
  const rest = (await standing(works)).filter(({ tag }) => tag !== 'PT-5120');
  await page.getByRole('textbox', { name: 'Another tag' }).focus();
  await keys.type('pt-0907');
  await keys.press('Enter');
  await expect(page.getByText('No instrument in service has the tag pt-0907.')).toBeVisible();
  await page.getByRole('textbox', { name: 'Another tag' }).focus();
  await keys.type('pt-5120');
  await keys.press('Enter');
  await expect(sheetOf(page, 'PT-5120').getByText(/^Not in the plan: is due later/)).toBeVisible();
  const minutes = sheetOf(page, 'PT-5120').getByLabel('Minutes');
  await minutes.fill('none');
  await press(keys, sheetOf(page, 'PT-5120').getByRole('button', { name: 'Put it in' }));
  await expect(sheetOf(page, 'PT-5120').getByText(/is not a number/)).toBeVisible();
  await minutes.fill('30');
  await page.reload();
  await expect(minutes).toHaveValue('30');
  await press(keys, sheetOf(page, 'PT-5120').getByRole('button', { name: 'Put it in' }));
  await expect(card(page, 'PT-5120')).toHaveAccessibleName(/, 30 min, fixed/);
  expect((await standing(works)).filter(({ tag }) => tag !== 'PT-5120')).toEqual(rest);

  // Planning anew leaves both where they were put.
  const fixed = (await standing(works)).filter(({ isFixed }) => isFixed);
  expect(fixed.map(({ tag }) => tag)).toEqual(['PT-2107', 'PT-5120']);
  await press(keys, page.getByRole('button', { name: 'Plan around what is fixed' }));
  await expect(page.getByRole('progressbar', { name: 'Plan made' })).toBeHidden();
  await expect.poll(async () => (await standing(works)).length).toBeGreaterThan(5);
  expect((await standing(works)).filter(({ isFixed }) => isFixed)).toEqual(fixed);

  await press(keys, sheetOf(page, 'PT-5120').getByRole('button', { name: 'Leave it to the next plan' }));
  await expect(card(page, 'PT-5120')).toHaveAccessibleName(/, 30 min$/);
  await press(keys, sheetOf(page, 'PT-5120').getByRole('button', { name: 'Take it out' }));
  await expect(card(page, 'PT-5120')).toBeHidden();
});

test('cards are dragged by mouse; two planners do not overwrite each other, and what is refused goes back', async ({
  page,
  works,
}) => {
  await works.query('delete from planned; delete from absence; delete from shutdown');
  await works.query(
    `update person set week_minutes = '{450,450,450,450,450,450,450}' where role = 'technician'`,
  );
  await plant(works, 'PT-2107', 0);
  const [{ day } = { day: '' }] = await standing(works);
  await workAs(page, 'Planner', `/planning?from=${day}`);
  const cellOf = (name: string) =>
    card(page, 'PT-2107')
      .locator('xpath=..')
      .getAttribute('aria-label')
      .then((label) => label?.startsWith(name));
  const drag = async () => {
    const from = await card(page, 'PT-2107').boundingBox();
    const label = (await card(page, 'PT-2107').locator('xpath=..').getAttribute('aria-label')) ?? '';
    const other = label.startsWith('Technician A') ? 'Technician B' : 'Technician A';
    const to = await page
      .getByRole('group', { name: label.replace(/^Technician [AB]/, other), exact: true })
      .boundingBox();
    if (from === null || to === null) throw new Error('nothing to drag');
    await page.mouse.move(from.x + 30, from.y + 12);
    await page.mouse.down();
    await page.mouse.move(from.x + 40, from.y + 30, { steps: 4 });
    await page.mouse.move(to.x + to.width / 2, to.y + to.height / 2, { steps: 8 });
    await page.mouse.up();
  };
  await drag();
  await expect.poll(() => cellOf('Technician B')).toBe(true);
  await expect.poll(async () => (await standing(works))[0]?.name).toBe('Technician B');
  let stands = '';
  await expect(async () => {
    stands = (await standing(works))[0]?.name ?? '';
    // Somebody else moves it meanwhile; where this page still hears of that, once more.
    await works.query(`update planned set revision = revision + 1`);
    await drag();
    const refused = page.getByRole('alert').filter({ hasText: /the plan of PT-2107/ });
    await expect(refused).toBeVisible({ timeout: 3000 });
  }).toPass({ timeout: 30_000 });
  await expect.poll(() => cellOf(stands)).toBe(true);
  expect((await standing(works))[0]?.name).toBe(stands);
});

test('a plan in the making is watched and stopped; whoever does not plan reads', async ({ page, works }) => {
  await comeAs(page, 'Planner');
  // Whoever makes it is away: it stands where it is.
  await works.query(
    `insert into plan_making (asked_by, asked_at, beat_at, first_day, days, part)
     select id, now(), now(), current_date, 3, 0.25 from person where name = 'Planner'`,
  );
  await page.goto('/planning');
  const bar = page.getByRole('progressbar', { name: 'Plan made' });
  await expect(bar).toHaveAttribute('aria-valuenow', '25');
  await works.query(`update plan_making set part = 0.5 where state = 'runs'`);
  await expect(bar).toHaveAttribute('aria-valuenow', '50');
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByText(/^The last plan was stopped /)).toBeVisible();
  await expect(page.getByRole('button', { name: 'Plan around what is fixed' })).toBeVisible();

  await works.query('delete from planned');
  await plant(works, 'PT-2107', 0);
  const [{ day } = { day: '' }] = await standing(works);
  await workAs(page, 'Auditor', `/planning?from=${day}&also=PT-2107`);
  await expect(page.getByRole('heading', { name: /^Week of/ })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Plan around what is fixed' })).toBeHidden();
  await expect(page.getByRole('button', { name: /^Put it/ })).toBeHidden();
  await page.goto('/planning/hours');
  await expect(page.getByText(/A planner changes this\.$/)).toBeVisible();
  await expect(page.getByRole('button', { name: /^(Keep|Enter|Take back)/ })).toBeHidden();
});

test('a technician has the day at hand: on Today, as a walk to print, and in a calendar', async ({
  page,
  works,
}) => {
  await works.query('delete from planned');
  await plant(works, 'PT-2107', 0);
  await plant(works, 'PT-1204', 0);
  await workAs(page, 'Technician A', '/');
  const yours = page.getByRole('region', { name: 'Planned for you today' });
  await expect(yours.getByRole('link', { name: /07:21 · PT-1204/ })).toBeVisible();
  await expect(yours.getByRole('link', { name: /PT-2107.*45 min, PC-02, DM-01/ })).toBeVisible();
  const due = page.getByRole('region', { name: 'Due next' });
  await expect(due.getByRole('link', { name: /PT-2107.*4 days overdue.*, in grace/ })).toBeVisible();
  await due.getByRole('link', { name: '2 overdue, in grace' }).click();
  await expect(page).toHaveURL(/due=grace/);
  const grid = page.getByRole('table', { name: 'Instruments' });
  await expect(grid.getByRole('link', { name: 'PT-2215' })).toBeVisible();
  await expect(grid.getByRole('link', { name: 'LT-2302' })).toBeHidden();

  await page.goto('/');
  await yours.getByRole('link', { name: 'your walks' }).click();
  await expect(page.getByText(/^Take DM-01, PC-02\.$/)).toBeVisible();
  const walk = page.getByRole('table').first();
  await expect(
    walk.getByRole('row', { name: /^07:21 Compressor house PT-1204 .* 45 PC-02, DM-01/ }),
  ).toBeVisible();
  await expect(walk.getByRole('row', { name: /hot juice, 95 °C .*in grace until/ })).toBeVisible();
  await expectAccessible(page);
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('navigation', { name: 'Planning' })).toBeHidden();
  await expect(page.getByText(/^Take DM-01, PC-02\.$/)).toBeVisible();
  await page.emulateMedia({ media: 'screen' });

  const file = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Calendar (iCal)' }).click();
  const text = (await readFile(await (await file).path(), 'utf8')).replaceAll('\r\n ', '');
  expect(text.match(/BEGIN:VEVENT/g)).toHaveLength(2);
  expect(text).toMatch(/SUMMARY:PT-1204\\, Instrument air header/);
  expect(text).toMatch(/LOCATION:Compressor house/);
  expect(text).toMatch(/DESCRIPTION:Technician A\\nTake PC-02\\, DM-01\./);
  const [{ b } = { b: 0 }] = await works.query<{ b: number }>(
    `select id::integer as b from person where name = 'Technician B'`,
  );
  const cookie = await works.cookieOf('Technician A');
  const of = async (query: string, headers: Record<string, string> = { cookie }) => {
    const answer = await fetch(`${works.url}/calendar.ics${query}`, { headers, redirect: 'manual' });
    return { status: answer.status, events: ((await answer.text()).match(/BEGIN:VEVENT/g) ?? []).length };
  };
  expect(await of(`?plan=${b}`)).toEqual({ status: 200, events: 0 });
  expect(await of('?plan=all')).toEqual({ status: 200, events: 2 });
  const nobody = await fetch(`${works.url}/calendar.ics?plan=nobody`, { headers: { cookie } });
  expect([nobody.status, await nobody.text()]).toEqual([
    422,
    expect.stringContaining('or of the number of a person'),
  ]);
  const unheard = await fetch(`${works.url}/planning?also=%00`, { headers: { cookie } });
  expect([unheard.status, await unheard.text()]).toEqual([
    200,
    expect.stringContaining('No instrument in service'),
  ]);
  expect((await of('?plan=all&token=wrong', {})).status).toBe(401);
  expect((await of('?plan=all', {})).status).toBe(303);
});

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 800 }, hasTouch: true, isMobile: true });

  test('a card is chosen, moved and taken out by touch', async ({ page, works }) => {
    await works.query('delete from planned; delete from absence');
    await works.query(
      `update person set week_minutes = '{450,450,450,450,450,450,450}' where role = 'technician'`,
    );
    await workAs(page, 'Planner', '/planning');
    await page.getByRole('link', { name: 'Next week' }).tap();
    await expect(page).toHaveURL(/from=/);
    await page
      .getByRole('list', { name: 'Not placed' })
      .getByRole('button', { name: /^PT-2107/ })
      .tap();
    const sheet = sheetOf(page, 'PT-2107');
    await expect(sheet).toBeInViewport();
    await sheet.getByRole('list', { name: 'Where it fits' }).getByRole('button').first().tap();
    await expect(card(page, 'PT-2107')).toBeVisible();
    expect(await standing(works)).toMatchObject([{ tag: 'PT-2107', isFixed: true }]);
    await sheet.getByRole('combobox', { name: 'Who' }).tap();
    await page.getByRole('option', { name: 'Technician B' }).tap();
    await sheet.getByRole('button', { name: 'Put it there' }).tap();
    await expect.poll(async () => (await standing(works))[0]?.name).toBe('Technician B');
    await page.emulateMedia({ colorScheme: 'dark' });
    await expectAccessible(page);
    expect(
      await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth),
    ).toBe(0);
    await sheet.getByRole('button', { name: 'Take it out' }).tap();
    await expect(card(page, 'PT-2107')).toBeHidden();
    expect(await standing(works)).toEqual([]);
  });
});

test('what comes due stands in a calendar whose days open; settings are kept, and typed text survives', async ({
  page,
}) => {
  await workAs(page, 'Planner', '/');
  await page.getByRole('link', { name: 'calendar and list' }).click();
  const month = page.getByRole('table', { name: /^What comes due in/ });
  await expect(month).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('link', { name: 'Next month' }).click();
  await expect(page).toHaveURL(/month=/);
  const day = month.getByRole('link', { name: /: \d+ due, \d+ of them planned$/ }).first();
  await day.click();
  await expect(page).toHaveURL(/day=/);
  const lines = page.getByRole('region', { name: /^Due on/ }).first();
  await expect(lines.getByRole('row', { name: /in \d+ days|today|overdue/ })).not.toHaveCount(0);

  await page.goto('/planning/hours');
  const ways = page.getByRole('region', { name: 'Ways, permits and grace' });
  await ways.getByLabel('Grace, days').fill('367');
  await ways.getByRole('button', { name: 'Keep ways and grace' }).click();
  await expect(ways.getByText('The days of grace are a whole number from 0 to 366.')).toBeVisible();
  await ways.getByLabel('Grace, days').fill('3');
  await page.reload();
  await expect(ways.getByLabel('Grace, days')).toHaveValue('3');
  await ways.getByRole('button', { name: 'Keep ways and grace' }).click();
  await expect(ways.getByText('Kept.')).toBeVisible();
  const hours = page.getByRole('group', { name: 'Hours of Technician A' });
  await hours.getByLabel('Sat, h').fill('25');
  await hours.getByRole('button', { name: /^Keep the hours/ }).click();
  await expect(hours.getByText('The hours of a day are from 0 to 24.')).toBeVisible();
  await hours.getByLabel('Sat, h').fill('4,5');
  await hours.getByRole('button', { name: /^Keep the hours/ }).click();
  await expect(hours.getByText('Kept.')).toBeVisible();
  const still = page.getByRole('region', { name: 'Shutdowns' }).first();
  const takeBack = still.getByRole('button', { name: /^Take back the shutdown of Boiler house/ });
  // Of this week's and the next one's the first may be over.
  const before = await takeBack.count();
  await takeBack.first().click();
  await expect(takeBack).toHaveCount(before - 1);

  await page.goto('/');
  // PT-2107 is four days overdue: of three days of grace none is left.
  await expect(page.getByRole('link', { name: '2 overdue past grace' })).toBeVisible();
  await page.goto('/office/trail?act=set+planning');
  await expect(page.getByRole('row', { name: /Planner .*set planning/ }).first()).toBeVisible();
});
