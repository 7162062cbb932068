/**
 * Each kind of instrument from the register to the signature: its connection, its readings, its judgement. Errors are
 * typed so that one point shows what is peculiar to the kind.
 */
import type { Page } from '@playwright/test';
import { beginAsFound, bringBack, comeAs, fillConnection, savedLine, skipToConnect } from './support/hands';
import { expect, test } from './support/works';

const field = (page: Page, name: RegExp) => page.getByRole('textbox', { name });

/** Types a climb as a technician does: digits and Enter. */
async function climb(page: Page, readings: readonly string[]): Promise<void> {
  for (const text of readings) {
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
  }
  await expect(page.getByRole('button', { name: /^(Judge|Return to service)$/ })).toBeFocused();
  await expect(savedLine(page)).toHaveText(/^saved /);
  await page.keyboard.press('Enter');
}

/** Leaves an instrument as found, brings it back and signs. */
async function leaveAndSign(page: Page, reason?: string): Promise<void> {
  if (reason !== undefined) await page.getByRole('textbox', { name: /^Remark/ }).fill(reason);
  await page.getByRole('button', { name: 'Leave as found' }).click();
  await bringBack(page);
  if (reason !== undefined) await page.getByRole('textbox', { name: /^Remark/ }).fill(reason);
  await page.getByRole('button', { name: /^Sign as/ }).click();
  await expect(page).toHaveURL(/\/record$/);
}

const summary = (page: Page) => page.getByRole('region', { name: 'As found', exact: true });
const row = (page: Page, index: number) =>
  page.getByRole('region', { name: 'Readings as found' }).getByRole('row').nth(index);

test.beforeEach(async ({ page }) => {
  await comeAs(page, 'Technician A');
});

test('absolute: an absolute standard, and its zero not trimmed at atmosphere', async ({ page }) => {
  // PT-4451: 0 … 1000 mbar absolute, ±0.25 % of span, so ±0.040 mA.
  await beginAsFound(page, 'PT-4451');
  await expect(page.getByText(/Reference PC-05/)).toBeVisible();
  await climb(page, ['4.05', '8.05', '12.05', '16.05', '20.05', '16.05', '12.05', '8.05', '4.05']);
  await expect(summary(page)).toContainText('outside');
  await page.getByRole('button', { name: 'Adjust', exact: true }).click();
  // Its body has no zero of its own: a sensor trim is advised.
  await expect(page.getByText('Trim the sensor at its lower and its upper point')).toBeVisible();
  await page.getByRole('combobox', { name: 'What' }).click();
  await page.getByRole('option', { name: 'Zero', exact: true }).click();
  await page.getByRole('textbox', { name: 'Applied, mbar' }).fill('1009');
  await expect(page.getByText('The barometer moves, and the setting would move with it.')).toBeVisible();
  await page.getByRole('textbox', { name: 'After, mA' }).fill('4.00');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/zero of an absolute transmitter is not set at atmosphere/)).toBeVisible();
  await page.getByRole('textbox', { name: 'Applied, mbar' }).fill('0.2');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('row', { name: /^Zero/ })).toBeVisible();
  await page.getByRole('button', { name: 'Begin as left' }).click();
  await expect(field(page, /^Reading at 0 % rising/)).toBeFocused();
  await climb(page, ['4.00', '8.00', '12.00', '16.00', '20.00', '16.00', '12.00', '8.00', '4.00']);
  await bringBack(page);
  await page.getByRole('button', { name: /^Sign as/ }).click();
  await expect(page.getByRole('region', { name: 'As left', exact: true })).toContainText('within');
});

test('differential, smart: three valves, the digital value as a third column', async ({ page }) => {
  // PDT-2201: 0 … 400 mbar, ±0.5 % of span.
  await page.goto('/instruments/PDT-2201');
  await page.getByRole('button', { name: 'Start a job' }).click();
  await skipToConnect(page);
  await expect(
    page.getByRole('img', { name: /two-wire loop.*at least 250 ohms.*low side is open/ }),
  ).toBeVisible();
  await fillConnection(page);
  await page.getByRole('button', { name: /Height difference/ }).click();
  await page.getByRole('checkbox', { name: /digital value at each point/ }).check();
  await page.getByRole('button', { name: 'Connected, begin as found' }).click();
  await expect(field(page, /^Reading at 0 % rising/)).toBeFocused();
  const points = [0, 25, 50, 75, 100, 75, 50, 25, 0];
  await climb(
    page,
    points.flatMap((percent) => [(4.01 + percent * 0.16).toFixed(2), (percent * 4 + 0.1).toFixed(1)]),
  );
  await expect(summary(page)).toContainText('within');
  await expect(row(page, 3).getByRole('cell').last()).toHaveText('200.1');
  await leaveAndSign(page);
});

test('analog with 10 to 50 mA, and one with 1 to 5 V across 250 ohms', async ({ page }) => {
  // PDT-1250: 0 … 150 mbar gives 10 … 50 mA, ±1 % of span, so ±0.4 mA.
  await beginAsFound(page, 'PDT-1250');
  await expect(page.getByText(/meter DM-03/)).toBeVisible();
  await climb(page, ['10.1', '20.1', '30.1', '40.1', '50.4', '40.1', '30.1', '20.1', '10.1']);
  await expect(row(page, 5)).toContainText('+1.000');
  await expect(row(page, 5)).toContainText('within, adjust');
  await leaveAndSign(page, 'exactly on the limit; a new board is ordered');

  // PT-4460: 0 … 4 bar gives 1 … 5 V, ±0.5 % of span, so ±0.02 V.
  await page.goto('/instruments/PT-4460');
  await page.getByRole('button', { name: 'Start a job' }).click();
  await skipToConnect(page);
  await expect(page.getByRole('img', { name: /250 ohm resistor in the loop/ })).toBeVisible();
  await fillConnection(page);
  await page.getByRole('button', { name: 'Connected, begin as found' }).click();
  await expect(field(page, /^Reading at 0 % rising, in V/)).toBeFocused();
  await climb(page, ['1.001', '2.001', '3.001', '4.001', '5.001', '4.002', '3.002', '2.002', '1.001']);
  await expect(summary(page)).toContainText('within');
  await leaveAndSign(page);
});

test('pneumatic: an output in psi, read by a pressure standard', async ({ page }) => {
  // PDT-1401: 0 … 100 mbar gives 3 … 15 psi, ±1 % of span, so ±0.12 psi.
  await page.goto('/instruments/PDT-1401');
  await page.getByRole('button', { name: 'Start a job' }).click();
  await skipToConnect(page);
  await expect(page.getByRole('img', { name: /air supply and output gauge/ })).toBeVisible();
  await fillConnection(page);
  await page.getByRole('button', { name: 'Connected, begin as found' }).click();
  await expect(field(page, /^Reading at 0 % rising, in psi/)).toBeFocused();
  await climb(page, ['3.05', '6.05', '9.06', '12.1', '15.13', '12.2', '9.1', '6.06', '3.05']);
  await expect(summary(page)).toContainText('outside');
  await expect(summary(page)).toContainText('Hysteresis0.83');
  await page.getByRole('button', { name: 'Repair' }).click();
  await expect(page.getByText('Say why: what is to be repaired.')).toBeVisible();
  await page.getByRole('textbox', { name: /^Remark/ }).fill('burr on the force beam');
  await page.getByRole('button', { name: 'Repair' }).click();
  await expect(page.getByRole('button', { name: 'Begin as left' })).toBeDisabled();
});

test('square root: even in flow, and the uncertainty wide at low flow', async ({ page }) => {
  // FT-1305: 0 … 250 mbar, square root with cut-off, points even in flow: 25 % of flow is 6.25 % of 250 mbar.
  await beginAsFound(page, 'FT-1305');
  await expect(page.getByText('15.625 mbar').first()).toBeVisible();
  await climb(page, ['4.00', '8.05', '12.02', '16.01', '20.00', '16.01', '12.02', '8.05', '4.00']);
  await expect(row(page, 2)).toContainText('+0.31');
  await expect(row(page, 2)).toContainText('outside');
  await leaveAndSign(page, 'primary element is weak below a quarter of its flow');
});

test('dial gauges by class: tapped at each point, read to half a division', async ({ page }) => {
  // PI-1201: 0 … 10 bar, class 1.0 of EN 837-1, so ±0.1 bar; divisions of 0.2 bar.
  await beginAsFound(page, 'PI-1201');
  await expect(page.getByText(/read to 0.1 bar, half a division/)).toBeVisible();
  await expect(page.getByText(/read by eye/)).toBeVisible();
  const dial = [0.5, 2.5, 5, 7.5, 9.5, 7.5, 5, 2.5, 0.5];
  await climb(
    page,
    dial.flatMap((bar, index) => [(bar - 0.1).toFixed(1), (bar + (index === 6 ? 0.1 : 0)).toFixed(1)]),
  );
  await expect(row(page, 7)).toContainText('+1.0');
  await expect(row(page, 7)).toContainText('within, adjust');
  await expect(row(page, 7)).toContainText('4.9');
  await expect(page.getByText(/^Friction: before and after a tap:/)).toBeVisible();
  await leaveAndSign(page, 'on its limit, class 1.0');

  // PI-6002: grade B of ASME B40.100: 3 % of span, 2 % in the middle half.
  await beginAsFound(page, 'PI-6002');
  await expect(page.getByText(/±3 % of span, 2 % in the middle half/)).toBeVisible();
  await climb(
    page,
    dial.flatMap((bar, index) => [
      bar.toFixed(1),
      (bar + (index === 0 || index === 2 ? 0.25 : 0)).toFixed(2),
    ]),
  );
  await expect(row(page, 1)).toContainText('within, adjust');
  await expect(row(page, 3)).toContainText('outside');
});

test('compound: a dial from vacuum to pressure, and a digital gauge with its own settings', async ({
  page,
}) => {
  // PI-4520: −1 … 3 bar, class 1.6.
  await beginAsFound(page, 'PI-4520');
  await expect(page.getByText(/^[-−]0\.80+ bar$/).first()).toBeVisible();
  await climb(
    page,
    [-0.8, 0, 1, 2, 2.8, 2, 1, 0, -0.8].flatMap((bar) => [bar.toFixed(2), bar.toFixed(2)]),
  );
  await expect(summary(page)).toContainText('within');
  await leaveAndSign(page);

  // PI-9001: local display only, −1 … 10 bar, ±0.1 % of span.
  await beginAsFound(page, 'PI-9001');
  const scale = await page.getByRole('list', { name: 'Test points' }).getByRole('listitem').count();
  expect(scale).toBe(9);
  const shown = [-0.45, 1.75, 4.5, 7.25, 9.45, 7.25, 4.5, 1.75, -0.45];
  await climb(
    page,
    shown.map((bar) => (bar + 0.02).toFixed(2)),
  );
  await expect(summary(page)).toContainText('outside');
  await page.getByRole('button', { name: 'Adjust', exact: true }).click();
  for (const [kind, applied, after] of [
    ['Zero', '0', '0.00'],
    ['Span', '10', '10.00'],
    ['Mid-scale', '5', '5.00'],
    ['Near vacuum', '-0.95', '-0.95'],
  ] as const) {
    await page.getByRole('combobox', { name: 'What' }).click();
    await page.getByRole('option', { name: kind, exact: true }).click();
    await page.getByRole('textbox', { name: 'Applied, bar' }).fill(applied);
    await page.getByRole('textbox', { name: 'Before, bar' }).fill(applied);
    await page.getByRole('textbox', { name: 'After, bar' }).fill(after);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('row', { name: new RegExp(`^${kind}`) })).toBeVisible();
  }
  await page.getByRole('button', { name: 'Begin as left' }).click();
  await expect(field(page, /^Reading at .* rising/)).toBeFocused();
  await climb(
    page,
    shown.map((bar) => bar.toFixed(2)),
  );
  await bringBack(page);
  await page.getByRole('button', { name: /^Sign as/ }).click();
  await expect(page.getByRole('region', { name: 'As left', exact: true })).toContainText('within');
});

test('vacuum: a transmitter in volts, and a heat-loss gauge against two standards, each in its decades', async ({
  page,
}) => {
  // PT-4511: 0 … 1000 mbar gives 0 … 10 V, ±1 % of span; its points fall.
  await beginAsFound(page, 'PT-4511');
  await climb(page, ['10.02', '5.01', '1.00', '0.10', '0.01']);
  await expect(summary(page)).toContainText('within');
  await leaveAndSign(page);

  // PI-4530: 0.001 … 10 mbar, ±20 % of reading: VG-03 low, VG-01 high.
  await page.goto('/instruments/PI-4530');
  await page.getByRole('button', { name: 'Start a job' }).click();
  await skipToConnect(page);
  await expect(page.getByRole('img', { name: /fine leak valve/ })).toBeVisible();
  await fillConnection(page);
  await page.getByRole('radio', { name: /VG-01/ }).check();
  await page.getByRole('textbox', { name: /If one that does not fit is used/ }).fill('');
  await page.getByRole('button', { name: /Height difference/ }).click();
  await page.getByRole('combobox', { name: /Second standard/ }).click();
  await page.getByRole('option', { name: /VG-03/ }).click();
  await page.getByRole('button', { name: 'Connected, begin as found' }).click();
  await expect(page.getByText('Reference at this point VG-03')).toBeVisible();
  for (const text of ['0.0011', '0.011', '0.11']) {
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
  }
  await expect(page.getByText('Reference at this point VG-01')).toBeVisible();
  await climb(page, ['1.25', '9']);
  await expect(row(page, 1)).toContainText('+10.0');
  await expect(row(page, 4)).toContainText('+25.0');
  await expect(row(page, 4)).toContainText('outside');
  await expect(row(page, 4)).toContainText('0.097');
  await page.getByRole('button', { name: 'Adjust', exact: true }).click();
  await page.getByRole('combobox', { name: 'What' }).click();
  await page.getByRole('option', { name: 'Span', exact: true }).click();
  await page.getByRole('textbox', { name: 'Applied, mbar' }).fill('1009');
  await page.getByRole('textbox', { name: 'After, mbar' }).fill('1000');
  await page.keyboard.press('Enter');
  await expect(page.getByText(/span of a vacuum gauge is not set at atmosphere/)).toBeVisible();
});
