/** Flow by differential pressure and orifice plates in the workshop: typed, shown, refused in words, handed over. */
import { readFile } from 'node:fs/promises';
import { expectAccessible, workAs } from './support/hands';
import { expect, test } from './support/works';

test('a flow is worked out at both low ends, its wrong zero and its noise, and handed to an instrument', async ({
  page,
}) => {
  await workAs(page, 'Planner', '/workshop');
  await page
    .getByRole('link', { name: /^Flow\b/ })
    .first()
    .click();
  await expect(page.getByRole('heading', { name: '0 … 250 mbar is 0 … 320 m³/h' })).toBeVisible();
  const table = page.getByRole('region', { name: 'Flow and output, by flow' });
  // By hand: on the chord to 12 % of flow, 10 % of flow is 10/12 of 10 %: 26.67 of 320.
  await expect(table.getByRole('row', { name: /^10\.00/ })).toContainText('26.67');

  await page.getByLabel('Flow', { exact: true }).fill('100');
  await page.getByLabel('Differential', { exact: true }).fill('172.75');
  await page.getByLabel('Too much by').fill('0.07');
  // Common practice: 0.07 of 172.75 shows about 2 on a scale of 0 to 100.
  await expect(page.getByRole('region', { name: 'What a wrong zero does', exact: true })).toContainText(
    'shows 2.01 m³/h',
  );
  await page.getByRole('button', { name: 'Show the working of the flow shown at rest' }).click();
  await expect(page.getByRole('region', { name: 'Working of the flow shown at rest' })).toContainText(
    'below no differential nothing flows',
  );

  // What is wrong is said at its field; only what it is about goes, and nothing typed is lost.
  await page.getByLabel('Temperature, °C').fill('-300');
  await expect(page.getByRole('region', { name: 'A gas that is not as designed' })).toContainText(
    'What you typed is still there',
  );
  await expect(page.getByLabel('Temperature, °C')).toHaveAttribute('aria-invalid', 'true');
  await expect(table).toBeVisible();
  await page.getByLabel('Temperature, °C').fill('40');
  await page.getByLabel('Cut below, %').fill('130');
  await expect(page.getByText('The low-flow cut-off must be from 0 to 100 %')).toHaveCount(2);
  await page.getByLabel('Cut below, %').fill('10');
  await expect(page.getByText('10 : 1', { exact: true })).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('Too much by')).toHaveValue('0.07');
  // The end of the stave goes by key; the address says the same to somebody else.
  await page.getByRole('slider', { name: /Input at 100 %/ }).focus();
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByLabel('Differential', { exact: true })).not.toHaveValue('172.75');
  await page.getByLabel('Differential', { exact: true }).fill('250');
  await expect(page).toHaveURL(/differentialMax=250/);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'CSV' }).click();
  expect(await readFile(await (await download).path(), 'utf8')).toContain('50.00,62.50,12.000,50.00');
  await expectAccessible(page);

  await page.getByLabel('Tag of the instrument').fill('ft-1305');
  await page.getByRole('link', { name: 'As the next configuration of FT-1305' }).click();
  await expect(page.getByLabel('URV')).toHaveValue('250');
  await expect(page.getByLabel('Zero below, % of flow')).toHaveValue('10');
  await expect(page.getByLabel('Why')).toHaveValue('Flow, 100 m³/h at 250 mbar, nothing below 10 % of flow');
});

test('an orifice plate gives flow, differential or bore, with its limits, and goes on as the range of a flow', async ({
  page,
}) => {
  await workAs(page, 'Technician A', '/workshop/orifice');
  // K-P14 of the check values: 12.2057 kg/s, 44.0198 m³/h.
  await expect(page.getByRole('heading', { name: '44.020 m³/h at 20.000 kPa' })).toBeVisible();
  const standard = page.getByRole('region', { name: 'After ISO 5167-2' });
  await expect(standard).toContainText('Inside all limits of use.');
  await expect(standard).toContainText('0.60951');
  await page.getByLabel('Bore, mm').fill('99');
  await expect(standard).toContainText('the standard covers 0.1 to 0.75');
  await expect(standard).toContainText('not stated');
  await page.getByLabel('Bore, mm').fill('102.26');
  await expect(page.getByText(/the bore is as wide as the pipe/).first()).toBeVisible();
  await page.getByLabel('Bore, mm').fill('61.356');
  await page.getByRole('combobox', { name: 'Work out' }).click();
  await page.getByRole('option', { name: 'the bore' }).click();
  await page.getByLabel('Flow, m³/h').fill('44.02');
  await expect(page.getByRole('heading', { name: /^A bore of 61\.35\d mm/ })).toBeVisible();
  await page.getByRole('button', { name: 'Show the working of the flow' }).click();
  await expect(page.getByRole('region', { name: 'Working of the flow', exact: true })).toContainText(
    'Reader-Harris',
  );
  await expectAccessible(page);
  await page.getByRole('link', { name: 'As the range of a flow' }).click();
  await expect(page.getByRole('heading', { name: /^0 … 20 kPa is 0 … 44\.02 m³\/h/ })).toBeVisible();
});

test('the supply of a loop: enough or not, a bad connection in ohms, and a note on the instrument', async ({
  page,
}) => {
  await workAs(page, 'Technician A', '/workshop/supply');
  await page.getByLabel('As warm as, °C').fill('20');
  // M-P01 of the check values: 18.388 V at 21 mA, 304 ohms to spare.
  await expect(page.getByRole('heading', { name: '18.39 V at the terminals at 21 mA' })).toBeVisible();
  await expect(page.getByText('Enough: 6.39 V and 304 Ω to spare.')).toBeVisible();
  await page.getByLabel('Barrier, Ω').fill('350');
  await expect(page.getByText(/^Not enough by/)).toBeVisible();
  await page.getByLabel('Barrier, Ω').fill('0');
  // By hand: 24 V less 12 mA over 267.24 ohms is 20.79 V; 7 V more are 583.3 ohms.
  await page.getByLabel('Voltage, V').fill('13.79312');
  await expect(page.getByRole('region', { name: 'Measured at the terminals' })).toContainText('+583.3 Ω');
  await page.getByLabel('Area, mm²').fill('0');
  await expect(page.getByText(/The area of a conductor must be greater than zero/).first()).toBeVisible();
  await page.getByLabel('Area, mm²').fill('1');
  await page.getByLabel('Resistor, Ω').fill('100');
  await expect(page.getByText(/Digital communication needs at least 230 to 250 Ω/)).toBeVisible();
  await page.getByRole('button', { name: 'Show the working of the terminal voltage' }).click();
  await expect(page.getByRole('region', { name: 'Working of the terminal voltage' })).toContainText('IACS');
  await expectAccessible(page);
  await page.getByLabel('Tag of the instrument').fill('PT-2301');
  await page.getByRole('button', { name: 'Keep the note' }).click();
  await expect(page.getByText('Kept with PT-2301.')).toBeVisible();
  await page.goto('/instruments/PT-2301');
  await expect(page.getByText(/^Loop supply: 21\.54 V at the terminals at 21 mA/)).toBeVisible();
});
