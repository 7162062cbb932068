/** The practice bench: its controls by keyboard alone, what is kept over a reload, the score and the replay. */
import { expectAccessible, workAs } from './support/hands';
import { expect, test } from './support/works';

test('a lesson by keyboard alone: read, told wrong, scored, replayed, and seen by who trains', async ({
  page,
  works,
}) => {
  await workAs(page, 'Technician A');
  await page.goto('/practice');
  await page.getByRole('link', { name: 'Zero and span of an analog transmitter' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: /^Zero and span/ })).toBeVisible();
  const pump = page.getByRole('button', { name: 'Pump, one stroke' });
  await pump.focus();
  for (let count = 0; count < 5; count += 1) await page.keyboard.press('Space');
  // Five strokes of four kilopascals each, warm at first.
  const shown = async () =>
    Number(
      (await page
        .getByRole('group', { name: 'The bench' })
        .locator('text')
        .filter({ hasText: /^\d+\.\d{3}$/ })
        .first()
        .textContent()) ?? NaN,
    );
  await expect.poll(shown).toBeGreaterThan(15);
  const screw = page.getByRole('slider', { name: 'Zero' });
  await screw.focus();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Shift+ArrowLeft');
  await expect(screw).toHaveAttribute('aria-valuetext', '+0.09 turns');
  await page.getByRole('button', { name: 'Take the reading' }).focus();
  await page.keyboard.press('Enter');
  const readings = page.getByRole('region', { name: 'Readings of this lesson' });
  await expect(readings.getByRole('row')).toHaveCount(2);
  // A reload loses nothing of it.
  await page.reload();
  await expect(readings.getByRole('row')).toHaveCount(2);
  await expect(page.getByRole('slider', { name: 'Zero' })).toHaveAttribute('aria-valuetext', '+0.09 turns');
  await page.getByRole('button', { name: 'Hint, −3' }).focus();
  await page.keyboard.press('Enter');
  await expect(page.getByText('Both ends are off, and by different amounts.')).toBeVisible();
  await expectAccessible(page);

  await page.getByRole('checkbox', { name: 'nothing is wrong' }).focus();
  await page.keyboard.press('Space');
  await page.getByRole('button', { name: 'Finish and see the score' }).focus();
  await page.keyboard.press('Enter');
  const score = page.getByRole('region', { name: 'Score' });
  await expect(score).toContainText('of 100');
  await expect(score).toContainText('adjusted before it was read as found at every point');
  await expect(score).toContainText('what was wrong was not named');
  await expect(score).toContainText('a hint');
  await expect(page.getByRole('region', { name: 'What was wrong' })).toContainText(
    'the zero has moved; the span is off',
  );
  // Scrubbed back to its beginning, nothing is turned yet.
  await page.getByRole('slider', { name: 'Moment of the attempt' }).focus();
  await page.keyboard.press('Home');
  await expect(page.getByRole('slider', { name: 'Zero' })).toHaveAttribute('aria-valuetext', '0.00 turns');
  await expectAccessible(page);

  // It stands apart from all real work, and the trainer sees it.
  const [trail] = await works.query<{ count: number }>(
    `select count(*)::int as count from audit_entry where detail::text like '%zero and span%'`,
  );
  expect(trail?.count).toBe(0);
  await page.goto('/practice');
  await expect(page.getByRole('row', { name: /^Zero and span/ })).not.toContainText('–');
  await expect(page.getByText('Who practised what')).toHaveCount(0);
  await workAs(page, 'Administrator');
  await page.goto('/practice');
  await expect(page.getByRole('region', { name: 'Progress of everybody' })).toContainText('Technician A');
  await page.getByRole('link', { name: /^Last attempt at Zero and span/ }).click();
  await expect(page.getByRole('region', { name: 'Score' })).toContainText('what was wrong was not named');
});

test('an output trim at the bench: by a controller and a communicator, with no error left', async ({
  page,
}) => {
  test.setTimeout(120_000);
  await workAs(page, 'Technician A');
  await page.goto('/practice/sensor%20or%20output');
  const set = async (pressure: number) => {
    await page.getByLabel('Pressure, kPa').fill(String(pressure));
    await page.getByRole('button', { name: 'Set it' }).click();
    await page.getByRole('button', { name: 'Wait a minute' }).click();
  };
  const run = async () => {
    for (const pressure of [0, 25, 50, 75, 100, 75, 50, 25, 0]) {
      await set(pressure);
      await page.getByRole('button', { name: 'Take the reading' }).click();
    }
  };
  await run();
  await expect(page.getByText('all points are read')).toBeVisible();
  await expect(page.getByText(/Everywhere by nearly the same amount/)).toBeVisible();
  const tell = async (what: string) => {
    await page.getByRole('combobox', { name: 'What' }).click();
    await page.getByRole('option', { name: what, exact: true }).click();
  };
  for (const milliamp of [4, 20]) {
    await tell('Hold the loop');
    await page.getByLabel('At, mA').fill(String(milliamp));
    await page.getByRole('button', { name: 'Hold', exact: true }).click();
    await page.getByRole('button', { name: 'Wait 10 s' }).click();
    const measured = await page
      .getByRole('group', { name: 'The bench' })
      .locator('text')
      .filter({ hasText: /^\d+\.\d{3}$/ })
      .last()
      .textContent();
    await tell(`Output trim at ${milliamp} mA`);
    await page.getByLabel('Measured, mA').fill(measured ?? '');
    await page.getByRole('button', { name: 'Trim', exact: true }).click();
  }
  await tell('Let the loop go');
  await page.getByRole('button', { name: 'Do it' }).click();
  await page.getByRole('button', { name: 'Begin as left' }).click();
  await run();
  await page.getByRole('checkbox', { name: 'the output stage is off' }).check();
  // A server that is away loses nothing: it is said, and finished again.
  await page.context().setOffline(true);
  await page.getByRole('button', { name: 'Finish and see the score' }).click();
  await expect(page.getByText(/Barys does not answer\. What you did is kept/)).toBeVisible();
  await page.context().setOffline(false);
  await page.getByRole('button', { name: 'Finish and see the score' }).click();
  const score = page.getByRole('region', { name: 'Score' });
  await expect(score).toContainText('of 100');
  await expect(score).not.toContainText('what is left');
  await expect(score).not.toContainText('named');
});
