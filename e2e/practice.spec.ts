/** The practice bench: its controls by keyboard alone and by touch, the job's own screens beside it, the score and the replay. */
import type { Page } from '@playwright/test';
import { comeAs, expectAccessible, workAs } from './support/hands';
import { expect, test } from './support/works';

const bench = (page: Page) => page.getByRole('group', { name: 'The bench' });

/** The figure under a word of the drawing. */
const shown = async (page: Page, word: RegExp): Promise<string> => {
  const figure = bench(page)
    .locator('text')
    .filter({ hasText: word })
    .locator('xpath=following-sibling::*[local-name()="text"][1]');
  return ((await figure.textContent()) ?? '').replace('\u2212', '-');
};
const tab = (page: Page, name: string) => page.getByRole('tab', { name, exact: true });
const points = (page: Page) => page.getByRole('list', { name: 'Test points' });
const score = (page: Page) => page.getByRole('region', { name: 'Score' });

test('a lesson by keyboard alone: read, told wrong, scored, replayed, and seen by who trains', async ({
  page,
  works,
}) => {
  await workAs(page, 'Technician A', '/practice');
  await page.getByRole('link', { name: 'Zero and span of an analog transmitter' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: /^Zero and span/ })).toBeVisible();
  const pump = page.getByRole('button', { name: 'Pump, one stroke' });
  await pump.focus();
  for (let count = 0; count < 5; count += 1) await page.keyboard.press('Space');
  // Five strokes of four kilopascals each, warm at first.
  await expect.poll(async () => Number(await shown(page, /^reference, kPa$/))).toBeGreaterThan(15);
  const screw = page.getByRole('slider', { name: 'Zero' });
  await screw.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowLeft');
  await expect(screw).toHaveAttribute('aria-valuetext', '+0.09 turns');
  await tab(page, 'Told').focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Enter');
  const field = page.getByRole('textbox', { name: /^Reading at 0 % rising/ });
  await expect(field).toBeVisible();
  await field.focus();
  // What is typed and not entered yet stays over a reload, as what was read does.
  await page.keyboard.type('9.9');
  await page.reload();
  await expect(field).toHaveValue('9.9');
  await field.focus();
  await page.keyboard.press('Enter');
  // It looks like a slip, and is asked about; entered again it is taken.
  await expect(page.getByRole('alert').filter({ hasText: 'Enter again takes it' })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(points(page).getByText('9.9', { exact: true })).toBeVisible();
  await page.reload();
  await tab(page, 'As found').click();
  await expect(points(page).getByText('9.9', { exact: true })).toBeVisible();
  await expect(screw).toHaveAttribute('aria-valuetext', '+0.09 turns');
  await tab(page, 'Told').click();
  await page.getByRole('button', { name: 'Hint, −3' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText('Both ends are off, and by different amounts.')).toBeVisible();
  await expectAccessible(page);

  await tab(page, 'Name it').focus();
  await page.keyboard.press('Enter');
  await page.getByRole('checkbox', { name: 'nothing is wrong' }).focus();
  await page.keyboard.press('Space');
  await page.getByRole('button', { name: 'Finish and see the score' }).focus();
  await page.keyboard.press('Enter');
  await expect(score(page)).toContainText('of 100');
  await expect(score(page)).toContainText('adjusted before it was read as found at every point');
  await expect(score(page)).toContainText('0 % was written down as something else than was shown');
  await expect(score(page)).toContainText('what was wrong was not named');
  await expect(score(page)).toContainText('a hint');
  await expect(page.getByRole('region', { name: 'What was wrong' })).toContainText(
    'the zero has moved; the span is off',
  );
  // Scrubbed back to its beginning, nothing is turned yet.
  await page.getByRole('slider', { name: 'Moment of the attempt' }).focus();
  await page.keyboard.press('Home');
  await expect(screw).toHaveAttribute('aria-valuetext', '0.00 turns');
  await expectAccessible(page);

  // It stands apart from all real work, and the trainer sees it.
  const [trail] = await works.query<{ count: number }>(
    `select count(*)::int as count from audit_entry where detail::text like '%zero and span%'`,
  );
  expect(trail?.count).toBe(0);
  await page.goto('/practice');
  await expect(page.getByRole('row', { name: /^Zero and span of/ })).not.toContainText('–');
  await expect(page.getByText('Who practised what')).toHaveCount(0);
  await workAs(page, 'Administrator', '/practice');
  await expect(page.getByRole('region', { name: 'Progress of everybody' })).toContainText('Technician A');
  await page.getByRole('link', { name: /^Last attempt at Zero and span/ }).click();
  await expect(score(page)).toContainText('what was wrong was not named');
  // It is nobody else's to see.
  await comeAs(page, 'Technician B');
  await page.reload();
  await expect(page.getByText('There is nothing at this address')).toBeVisible();
});

test('an output trim at the bench: read on the screens of a job, advised, trimmed, with no error left', async ({
  page,
}) => {
  await workAs(page, 'Technician A', '/practice/sensor%20or%20output');
  const run = async () => {
    for (const pressure of [0, 25, 50, 75, 100, 75, 50, 25, 0]) {
      await page.getByLabel('Pressure, kPa').fill(String(pressure));
      await page.getByRole('button', { name: 'Set it' }).click();
      await page.getByRole('button', { name: 'Wait a minute' }).click();
      const [output, digital] = [await shown(page, /^meter, mA$/), await shown(page, /^pressure, kPa$/)];
      await page.getByRole('textbox', { name: /^Reading at/ }).fill(output);
      await page.keyboard.press('Enter');
      await page.getByRole('textbox', { name: /^Digital value at/ }).fill(digital);
      await page.keyboard.press('Enter');
    }
    await expect(page.getByText('All 9 points are read')).toBeVisible();
  };
  await tab(page, 'As found').click();
  await run();
  await page.getByRole('button', { name: 'Judge', exact: true }).click();
  await expect(page.getByText('The digital value is right and the current is not')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Smallest act that suffices' })).toContainText(
    'Trim the output at 4 and 20 mA',
  );
  for (const milliamp of [4, 20]) {
    await tab(page, 'Loop').click();
    await page.getByRole('button', { name: `Hold ${milliamp} mA` }).click();
    await page.getByRole('button', { name: 'Wait 10 s' }).click();
    const measured = await shown(page, /^meter, mA$/);
    await tab(page, 'Trims').click();
    const typed = page.getByLabel(`Measured at ${milliamp} mA, mA`);
    await typed.fill(measured);
    // The page that is open and what is typed there are back after a reload.
    await page.reload();
    await expect(typed).toHaveValue(measured);
    await page.getByRole('button', { name: `Trim ${milliamp} mA` }).click();
  }
  await tab(page, 'Loop').click();
  await page.getByRole('button', { name: 'Let the loop go' }).click();
  await tab(page, 'Adjust').click();
  await page.getByRole('button', { name: 'Begin as left' }).click();
  await run();
  await page.getByRole('button', { name: 'Say what was wrong' }).click();
  await page.getByRole('checkbox', { name: 'the output stage is off' }).check();
  // A server that is away loses nothing: it is said, and finished again.
  await page.context().setOffline(true);
  await page.getByRole('button', { name: 'Finish and see the score' }).click();
  await expect(page.getByText(/Barys does not answer\. What you did is kept/)).toBeVisible();
  await page.context().setOffline(false);
  await page.getByRole('button', { name: 'Finish and see the score' }).click();
  await expect(score(page)).toContainText('of 100');
  const points100 = Number(/(\d+) of 100/.exec((await score(page).textContent()) ?? '')?.[1]);
  expect(points100).toBeGreaterThanOrEqual(95);
});

test('a wet leg brought back by its valves, and a fault of one’s own choice at the free bench', async ({
  page,
}) => {
  await workAs(page, 'Technician A', '/practice/wet%20leg');
  const move = (name: string) => page.getByRole('button', { name, exact: true }).click();
  for (const name of [
    'Close low side block',
    'Close high side block',
    'Open equaliser',
    'Open high side vent',
    'Open low side vent',
    'Fill the leg',
  ])
    await move(name);
  await expect(page.getByRole('button', { name: 'The leg is being filled' })).toBeDisabled();
  for (let count = 0; count < 3; count += 1) await move('Wait a minute');
  await expect(page.getByText(/The plug of the pot shows liquid/)).toBeVisible();
  for (const name of ['Close high side vent', 'Close low side vent', 'Open high side block'])
    await move(name);
  // The leg is opened last: before the equaliser is shut it would run out again.
  await expect(page.getByText(/^Unsafe:/)).toHaveCount(0);
  for (const name of ['Close equaliser', 'Open low side block']) await move(name);
  await expectAccessible(page);
  await tab(page, 'Name it').click();
  await page.getByRole('checkbox', { name: 'the wet leg has lost its fill' }).check();
  await move('Finish and see the score');
  await expect(score(page)).toContainText('100 of 100');

  await page.goto('/practice');
  await page.getByRole('combobox', { name: 'Instrument' }).click();
  await page.getByRole('option', { name: 'dial gauge', exact: true }).click();
  await page.getByRole('combobox', { name: 'Fault' }).click();
  await page.getByRole('option', { name: 'friction', exact: true }).click();
  await page.getByRole('link', { name: 'Go to the bench' }).click();
  await expect(page.getByRole('heading', { name: 'Free bench: dial gauge' })).toBeVisible();
  await move('Tap the gauge');
  await tab(page, 'As found').click();
  await expect(page.getByRole('textbox', { name: /^Reading before a tap at 0 %|^Before/ })).toBeVisible();
  await tab(page, 'Name it').click();
  await page.getByRole('checkbox', { name: 'something rubs and sticks' }).check();
  await move('Finish and see the score');
  await expect(score(page)).toContainText('it was not read as found at every point');
  await page.goto('/practice');
  await expect(page.getByRole('region', { name: 'Attempts at free benches' })).toContainText(
    'Free bench: dial gauge, friction',
  );
});

test('a digital gauge is waited for before it takes a value', async ({ page }) => {
  await workAs(page, 'Technician A', '/practice/digital%20gauge');
  await tab(page, 'Adjust').click();
  const order = page.getByRole('list', { name: 'Order of adjustment' });
  await expect(order.getByRole('listitem')).toHaveCount(3);
  await order.getByRole('button', { name: 'At pressure: wait 30 s' }).first().click();
  await expect(order.getByRole('timer')).toHaveText(/settling, (30|29) s/);
  await expect(order.getByRole('timer')).toHaveText(/settling, (28|27) s/);
  await page.getByLabel('Zero is, kPa').fill('0');
  await page.getByRole('button', { name: 'Wait 10 s' }).click();
  await page.getByRole('button', { name: 'Take zero' }).click();
  await expect(page.getByText(/Calibrated in the field 2 times/)).toBeVisible();
});

test.describe('by touch, on a phone', () => {
  test.use({ hasTouch: true, viewport: { width: 390, height: 844 } });

  test('a transmitter is set at its own menu with two keys and a wheel, and compared with its sheet', async ({
    page,
  }) => {
    await workAs(page, 'Technician A', '/practice/set-up%20rehearsal?seed=2');
    const take = page.getByRole('button', { name: 'Take, the upper key' });
    const back = page.getByRole('button', { name: 'Back, the lower key' });
    const wheel = page.getByRole('slider', { name: 'Wheel' });
    const touch = await page.context().newCDPSession(page);
    /** Drags a finger round the wheel by so many of its twelve clicks. */
    const drag = async (clicks: number) => {
      const box = await wheel.locator('circle').boundingBox();
      if (box === null) throw new Error('the wheel is not there');
      const at = (angle: number) => ({
        x: box.x + box.width / 2 + 16 * Math.sin(angle),
        y: box.y + box.height / 2 - 16 * Math.cos(angle),
      });
      const send = (type: 'touchStart' | 'touchMove' | 'touchEnd', angle?: number) =>
        touch.send('Input.dispatchTouchEvent', { type, touchPoints: angle === undefined ? [] : [at(angle)] });
      await send('touchStart', 0);
      const steps = Math.abs(clicks) * 4;
      // A little past the click, so that rounding on the way does not lose it.
      for (let step = 1; step <= steps; step += 1) {
        await send('touchMove', ((clicks * 1.02 * step) / steps) * (Math.PI / 6));
        // As a finger does: one place a frame.
        await page.waitForTimeout(20);
      }
      await send('touchEnd');
    };
    await expect(async () => {
      await take.tap();
      await expect(bench(page).getByText('Loop test')).toBeVisible({ timeout: 1000 });
    }).toPass();
    await take.tap();
    await expect(bench(page).getByText('Begins at')).toBeVisible();
    await drag(1);
    await take.tap();
    await expect(bench(page).getByText('[0]30.000')).toBeVisible();
    await take.tap();
    await drag(-1);
    await expect(bench(page).getByText('0[2]0.000')).toBeVisible();
    await take.tap();
    await drag(5);
    await expect(bench(page).getByText('02[5].000')).toBeVisible();
    for (let digit = 0; digit < 4; digit += 1) await take.tap();
    await expect(bench(page).getByText('done')).toBeVisible();
    await back.tap();
    await back.tap();

    // The rest by the pages of the communicator.
    const set = async (label: string, value: string, word: string) => {
      await page.getByLabel(label, { exact: true }).fill(value);
      await page.getByRole('button', { name: word, exact: true }).tap();
    };
    const choose = async (label: string, option: string) => {
      await page.getByRole('combobox', { name: label }).tap();
      await page.getByRole('option', { name: option, exact: true }).tap();
    };
    await tab(page, 'Output').tap();
    await choose('Output goes', 'root, zero below a start');
    await set('Start, % of flow', '8', 'Set start');
    await set('Damping of the output, s', '-2', 'Set damping');
    await expect(page.getByText('refused: no such damping')).toBeVisible();
    await set('Damping of the output, s', '2', 'Set damping');
    await tab(page, 'Display').tap();
    await set('Display at 100 %', '450', 'Set high');
    await choose('Display unit', 'm³/h');
    await tab(page, 'Name it').tap();
    await page.getByRole('checkbox', { name: 'another range is set in it' }).tap();
    await page.getByRole('button', { name: 'Finish and see the score' }).tap();
    // The start view alone was left as it was.
    await expect(score(page)).toContainText('97 of 100');
    const settings = page.getByRole('region', { name: 'Settings that differ' });
    await expect(settings).toContainText('Start view');
    await expect(settings).toContainText('Nothing is measured otherwise.');
    await expect(settings.getByRole('row')).toHaveCount(2);
    await expectAccessible(page);
  });
});
