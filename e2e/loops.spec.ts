/** A loop in the workshop: expected at every tap, who is wrong, what to measure next; moved by keyboard, long, and on a phone. */
import { readFile } from 'node:fs/promises';
import type { Page } from '@playwright/test';
import { expectAccessible, workAs } from './support/hands';
import { expect, test } from './support/works';

const list = (page: Page) => page.getByRole('list', { name: 'Items of the loop' });
const row = (page: Page, name: string) => list(page).getByRole('listitem').filter({ hasText: name });
const names = (page: Page) =>
  list(page)
    .getByRole('button', { name: /^Move / })
    .evaluateAll((all) => all.map((one) => one.getAttribute('aria-label')?.slice(5)));

test('a loop names the item that is wrong, what to measure next, and what a trim to it would do', async ({
  page,
}) => {
  await workAs(page, 'Technician A', '/workshop/loop');
  // By hand: a quarter of 250 mbar is half the flow: 12 mA, 3 V, 160 of 320 m³/h.
  await expect(row(page, 'R 250 Ω')).toContainText('3.0000 V');
  const read = (name: string) => row(page, name).getByRole('textbox', { name: /^Read/ });
  await expect(page.getByRole('heading', { name: /^Measure first: / })).toBeVisible();
  await read('FI-1305').fill('171.5');
  await expect(
    page.getByRole('heading', { name: 'Cannot tell yet: FT-1305 or IS-12 or FI-1305' }),
  ).toBeVisible();
  await expect(page.getByRole('heading', { name: /^Measure next: / })).toBeVisible();
  await read('FT-1305').fill('12.004');
  await read('AI-3.7').fill('160.1');
  await expect(page.getByRole('heading', { name: /^FI-1305, \d\d %$/ })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Never trim the transmitter to this' })).toContainText(
    'AI-3.7 would be −',
  );
  // What was read stands in the address, and is there again.
  await page.reload();
  await expect(read('FI-1305')).toHaveValue('171.5');
  await read('AI-3.7').fill('160,1,2');
  await expect(page.getByRole('alert').filter({ hasText: 'is not a number' })).toBeVisible();
  await read('AI-3.7').fill('160.1');

  // A second root is warned of; a span of nothing is told at its field.
  await row(page, 'FI-1305').getByRole('button', { name: 'FI-1305', exact: true }).click();
  const fields = page.getByRole('group', { name: 'Fields of FI-1305' });
  await fields.getByRole('combobox', { name: 'Transfer' }).click();
  await page.getByRole('option', { name: 'root', exact: true }).click();
  await expect(page.getByText('On the way to FI-1305 the root is taken 2 times')).toBeVisible();
  await fields.getByRole('combobox', { name: 'Transfer' }).click();
  await page.getByRole('option', { name: 'linear', exact: true }).click();
  // A scaled variable that takes the root by itself makes it two with the root of the output.
  await row(page, 'FT-1305').getByRole('button', { name: 'FT-1305', exact: true }).click();
  const head = page.getByRole('group', { name: 'Fields of FT-1305' });
  await head.getByRole('combobox', { name: 'Output driven by' }).click();
  await page.getByRole('option', { name: 'the scaled variable, by its root' }).click();
  await expect(page.getByText('On the way to AI-3.7 the root is taken 2 times')).toBeVisible();
  await head.getByRole('combobox', { name: 'Output driven by' }).click();
  await page.getByRole('option', { name: 'the pressure' }).click();
  await row(page, 'FI-1305').getByRole('button', { name: 'FI-1305', exact: true }).click();
  await fields.getByLabel('Input at 100 %').fill('4');
  await expect(fields.getByLabel('Input at 100 %')).toHaveAttribute('aria-invalid', 'true');
  await fields.getByLabel('Input at 100 %').fill('20');
  await expectAccessible(page);

  // Items change places by keyboard, also while one is open: the recorder before the panel meter.
  expect(await names(page)).toEqual(['FT-1305', 'IS-12', 'R 250 Ω', 'AI-3.7', 'FI-1305', 'FR-1305']);
  await page.getByRole('button', { name: 'Move FR-1305' }).focus();
  await page.keyboard.press('Space');
  await page.waitForTimeout(300);
  await expect(fields).toHaveCount(0);
  await page.keyboard.press('ArrowUp');
  await page.waitForTimeout(300);
  await page.keyboard.press('Space');
  await expect
    .poll(() => names(page))
    .toEqual(['FT-1305', 'IS-12', 'R 250 Ω', 'AI-3.7', 'FR-1305', 'FI-1305']);
  await expect(page.getByRole('heading', { name: /^FI-1305, \d\d %$/ })).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'CSV' }).click();
  expect(await readFile(await (await download).path(), 'utf8')).toContain(
    'FI-1305,indicator,m³/h,160.00,171.5',
  );
  await page.getByLabel('Tag of the instrument').fill('FT-1305');
  await page.getByRole('button', { name: 'Keep the note' }).click();
  await expect(page.getByText('Kept with FT-1305.')).toBeVisible();
});

test('a chain of twelve items fits a desk and a phone', async ({ page }) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  await workAs(page, 'Technician A', '/workshop/loop');
  await expect(row(page, 'R 250 Ω')).toContainText('3.0000 V');
  for (let count = 6; count < 12; count += 1) {
    await page.getByRole('button', { name: 'Add an item' }).click();
    await expect(list(page).getByRole('button', { name: /^Move / })).toHaveCount(count + 1);
  }
  const overflow = () => page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
  await expect.poll(overflow).toBeLessThanOrEqual(0);
  await page.reload();
  await expect(list(page).getByRole('button', { name: /^Move / })).toHaveCount(12);
  await page.setViewportSize({ width: 390, height: 844 });
  await expect.poll(overflow).toBeLessThanOrEqual(0);
  await expectAccessible(page);
  // What is taken out leaves the others as they read.
  await list(page).getByRole('button', { name: 'IS-12', exact: true }).click();
  await page.getByRole('button', { name: 'Take IS-12 out' }).click();
  await expect(list(page).getByRole('button', { name: /^Move / })).toHaveCount(11);
  await expect(row(page, 'R 250 Ω')).toContainText('3.0000 V');
});
