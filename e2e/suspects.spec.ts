/** What would look like the readings: weighed at Judge, decided by a test, taken into the record. */
import { comeAs, expectAccessible } from './support/hands';
import { expect, test } from './support/works';

test.beforeEach(async ({ page }) => {
  await comeAs(page, 'Technician A');
});

test('a suspicion is weighed at Judge, decided by a vented reading, and taken into the record and back', async ({
  page,
}) => {
  // PT-6003 of 0 to 5 bar reads about 0.65 % high everywhere: 0.03 bar, or a third of a metre of water.
  await page.goto('/instruments/PT-6003');
  await page.getByRole('link', { name: /^Go on with job/ }).click();
  await page.waitForURL(/judge$/);
  const sheet = page.getByRole('region', { name: 'What would look like this' });
  await expect(sheet).toContainText('The readings cannot tell: the zero has drifted');
  const suspicions = sheet.getByRole('radiogroup', { name: 'Suspicions, the likeliest first' });
  const head = suspicions.getByRole('radio', { name: /Liquid stands in a line/ });
  await expect(suspicions.getByText(/0\.3\d m of water on the high side/)).toBeVisible();
  await expect(suspicions.getByRole('radio', { name: /The zero has drifted/ })).toBeChecked();
  await head.focus();
  await page.keyboard.press('Space');
  await expect(head).toBeChecked();
  await expect(page.getByText('dotted line: the suspicion')).toBeVisible();
  await sheet.getByRole('button', { name: 'Show the working of this weighing' }).click();
  await expect(sheet).toContainText('Bayes’ theorem');
  await expectAccessible(page);

  // What is no number is said at its field and stays in it.
  const vented = sheet.getByLabel(/Output when drained and open/);
  await vented.fill('four');
  await page.keyboard.press('Enter');
  await expect(sheet.getByText(/“four” is not a number|"four" is not a number/)).toBeVisible();
  await expect(vented).toHaveValue('four');
  await vented.fill('4.104');
  await page.keyboard.press('Enter');
  await expect(sheet).toContainText('The readings can tell.');
  await expect(suspicions.getByRole('radio', { name: /Liquid stands in a line/ })).toHaveCount(0);

  // What was typed outlasts a reload.
  await sheet.getByLabel('What the test showed').fill('vented at the block');
  await page.reload();
  await expect(sheet.getByLabel('What the test showed')).toHaveValue('vented at the block');
  await sheet.getByRole('button', { name: 'Into the record' }).click();
  await expect(sheet).toContainText(/In the record: The zero has drifted, \+0\.03\d+ bar/);
  await expect(sheet).toContainText('drained and open it read 4.104; vented at the block');
  // What decided it stays typed, and the weighing with it.
  await expect(vented).toHaveValue('4.104');
  await expect(sheet).toContainText('The readings can tell.');
  await page.getByRole('link', { name: /record so far/ }).click();
  const record = page.getByRole('region', { name: 'Findings behind the readings' });
  await expect(record).toContainText('vented at the block. Technician A');

  await page.goBack();
  await sheet.getByLabel('Why it is taken back').fill('to be read again');
  await sheet.getByRole('button', { name: 'Take it back' }).click();
  await expect(sheet.getByRole('button', { name: 'Into the record' })).toBeVisible();
  await page.getByRole('link', { name: /record so far/ }).click();
  await expect(record).toContainText(/Taken back by Technician A, .*: to be read again/);
});

test('on a phone the suspicions stand below each other and nothing is cut', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 800 });
  await page.goto('/instruments/PT-6003');
  await page.getByRole('link', { name: /^Go on with job/ }).click();
  await page.waitForURL(/judge$/);
  await page.getByText('Liquid stands in a line', { exact: true }).click();
  await expect(page.getByRole('radio', { name: /Liquid stands in a line/ })).toBeChecked();
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBe(390);
  await expectAccessible(page);
});
