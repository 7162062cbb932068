/** The loop of an instrument: kept in the register, checked in a job at every tap, judged, and never trimmed to a wrong receiver. */
import type { Page } from '@playwright/test';
import { expectAccessible, fillConnection, skipToConnect, workAs } from './support/hands';
import { expect, test } from './support/works';

/** A loop whose resistor has 245 ohms in place of 250, and whose indicator is right. */
const READ: Readonly<Record<string, readonly [mA: string, volt: string, card: string, indicator: string]>> = {
  '0 %': ['4.000', '0.980', '-1.6', '0'],
  '25 %': ['8.000', '1.960', '76.8', '80'],
  '50 %': ['12.000', '2.940', '155.2', '160'],
  '75 %': ['16.000', '3.920', '233.6', '240'],
  '100 %': ['20.000', '4.900', '312.0', '320'],
};
const COLUMNS = ['Reading', 'R 250 Ω', 'AI-3.7', 'FI-1305'];
/** Differential, per cent of its span, at even parts of the flow. */
const FLOW_OF: Readonly<Record<string, string>> = {
  '0': '0 %',
  '6.25': '25 %',
  '25': '50 %',
  '56.25': '75 %',
  '100': '100 %',
};

/** Types what each tap shows at the point that is now, in the order that the page asks for it; until nothing is asked. */
async function readAll(page: Page): Promise<void> {
  const field = page.getByRole('textbox', { name: / at [\d.]+ % (rising|falling)/ });
  await expect(field.first()).toBeFocused();
  while ((await field.count()) > 0) {
    const label = (await field.first().getAttribute('aria-label')) ?? '';
    const percent = / at ([\d.]+) % /.exec(label)?.[1] ?? '';
    const texts = READ[FLOW_OF[percent] ?? ''] ?? [];
    for (const [i, name] of COLUMNS.entries()) {
      await expect(
        page.getByRole('textbox', { name: new RegExp(`^${name}.* at ${percent} %`) }),
      ).toBeFocused();
      await page.keyboard.type(texts[i] ?? '');
      await page.keyboard.press('Enter');
    }
    await expect(page.getByRole('textbox', { name: label })).toHaveCount(0);
  }
}

test('a loop is kept with its instrument, checked at every tap in a job, and says which item is wrong', async ({
  page,
}) => {
  await workAs(page, 'Technician A', '/instruments/FT-1305');
  const sheet = page.getByRole('region', { name: 'Loop', exact: true });
  await expect(sheet).toContainText('FT-1305 → IS-1305 → R 250 Ω → AI-3.7 → FI-1305');
  await expectAccessible(page);
  await sheet.getByRole('link', { name: 'Open it in the workshop' }).click();
  await expect(page.getByLabel('Tag of the instrument')).toHaveValue('FT-1305');
  await page.getByRole('button', { name: 'Keep the loop' }).click();
  await expect(page.getByText('Say why: the reason stays with this version.')).toBeVisible();
  await page.getByLabel('Or as its loop: why').fill('drawn again from the panel');
  await page.getByRole('button', { name: 'Keep the loop' }).click();
  await expect(page.getByText('Kept as a new version of the loop of FT-1305.')).toBeVisible();

  await page.goto('/instruments/FT-1305');
  await expect(sheet).toContainText('drawn again from the panel');
  await page.getByRole('combobox', { name: 'Why' }).click();
  await page.getByRole('option', { name: 'Loop check' }).click();
  await page.getByRole('button', { name: 'Start a job' }).click();
  await skipToConnect(page);
  await fillConnection(page);
  await page.getByRole('button', { name: 'Connected, begin as found' }).click();
  await readAll(page);
  await page.getByRole('button', { name: /Judge/ }).click();
  await page.waitForURL(/judge$/);

  const loop = page.getByRole('region', { name: 'The loop', exact: true });
  await expect(loop).toContainText(/R 250 Ω is likely wrong, by −[\d.]+ % of its span/);
  const taps = loop.getByRole('region', { name: 'Verdict at each tap' });
  await expect(taps.getByRole('row', { name: /^FT-1305/ })).toContainText('within');
  await expect(taps.getByRole('row', { name: /^R 250 Ω, likely wrong/ })).toContainText('outside');
  // The card shows what the resistor gives it: outside by all before it, and sound by itself.
  await expect(taps.getByRole('row', { name: /^AI-3\.7/ })).toContainText(/outside.*within/);
  await expect(taps.getByRole('row', { name: /^FI-1305/ })).toContainText(/within.*within/);
  const alone = page.getByRole('region', { name: 'What would look like this of R 250 Ω' });
  await expect(alone).toContainText('The readings can tell.');
  await expect(alone).toContainText(/24[45]\.?\d* Ω in place of 250 Ω/);
  await expectAccessible(page);

  // What the transmitter would become if it were trimmed to the card, before anything is logged; and that a reason is asked.
  await page.getByLabel(/^Remark; the reason/).fill('the card is wrong, says the board');
  await page
    .getByRole('button', { name: /^Adjust/ })
    .first()
    .click();
  await page.waitForURL(/adjust$/);
  await page.getByRole('combobox', { name: 'Trimmed to' }).click();
  await page.getByRole('option', { name: 'AI-3.7, a receiver' }).click();
  await expect(
    page.getByText(/AI-3\.7 is off by −[\d.]+ % of its span\. Trimmed until it agrees/),
  ).toContainText(/FI-1305 by \+[\d.]+ %/);
  await page.getByRole('combobox', { name: 'What' }).click();
  await page.getByRole('option', { name: /Output trim/ }).click();
  await page.getByLabel(/^Before/).fill('4.000');
  await page.getByLabel(/^After/).fill('4.080');
  await page.getByRole('button', { name: 'Log', exact: true }).click();
  await expect(page.getByText(/why it is trimmed to a receiver and not to the standard/)).toBeVisible();
  await page.getByLabel('Note (turns, trim, part)').fill('until the resistor is there');
  await page.getByRole('button', { name: 'Log', exact: true }).click();
  const log = page.getByRole('region', { name: 'Adjustments' }).first();
  await expect(log).toContainText('Until AI-3.7 agreed');
  await expect(log).toContainText(/Trimmed to AI-3\.7 it is itself off by \+[\d.]+ % of its span/);
  await page.getByRole('link', { name: /record so far/ }).click();
  await expect(page.getByRole('region', { name: 'The loop as found' })).toContainText(
    'R 250 Ω is likely wrong',
  );
});
