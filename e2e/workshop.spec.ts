import { readFile } from 'node:fs/promises';
import { comeAs, expectAccessible } from './support/hands';
import { expect, test } from './support/works';

test.beforeEach(({ page }) => comeAs(page, 'Technician A'));

test('a value is converted, its water reference chosen, and the working shown', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'More' }).click();
  await page.getByRole('menuitem', { name: 'Workshop' }).click();
  await page.getByRole('link', { name: 'Convert' }).first().click();
  await page.getByRole('textbox', { name: 'Value' }).fill('37,40');
  await page.getByRole('button', { name: /^kPa/ }).click();
  await page.getByRole('button', { name: /inH2O at 68 °F$/ }).click();
  await expect(page.getByRole('heading', { name: '37,40 kPa in inH2O at 68 °F' })).toBeVisible();
  // 37400 Pa / (0.0254 m x 998.207 kg/m3 x 9.80665 m/s2) = 150.41689
  await expect(page.getByText(/^150\.4169 inH2O at 68 °F$/)).toBeVisible();
  await expect(page.getByRole('button', { name: /inH2O at 60 °F$/ })).toContainText('+0.0956 %');

  await page.getByRole('button', { name: 'Show the working of the conversion' }).click();
  const working = page.getByRole('region', { name: 'Working of the conversion' });
  await expect(working.getByText('a column of liquid under standard gravity')).toBeVisible();
  await expect(working.locator('.katex').first()).toBeVisible();
  await expectAccessible(page);

  await page.reload();
  await expect(page.getByRole('textbox', { name: 'Value' })).toHaveValue('37,40');
});

test('a unit that can mean several is asked about, and what was typed stays', async ({ page }) => {
  await page.goto('/workshop/convert');
  const unit = page.getByRole('combobox', { name: 'Unit', exact: true });
  await unit.fill('inWC');
  await unit.press('Enter');
  await expect(page.getByText('"inWC" can mean more than one unit. Say which: inH2O at 4 °C,')).toBeVisible();
  await expect(unit).toHaveValue('inWC');
  await unit.fill('in H2O @ 68F');
  await unit.press('Enter');
  await expect(unit).toHaveValue('inH2O at 68 °F');
  await page.getByRole('textbox', { name: 'Value' }).fill('12.3.4');
  await expect(page.getByText('"12.3.4" has more than one decimal sign.')).toBeVisible();

  await page.getByRole('textbox', { name: 'Value' }).fill('1');
  await page.getByRole('textbox', { name: 'Barometer' }).fill('');
  await expect(page.getByText('The barometric pressure is needed')).toBeVisible();
});

test('a range is worked out: table, stave, the reading the other way round, CSV and paper', async ({
  page,
}) => {
  await page.goto('/workshop/expected');
  await page.getByRole('textbox', { name: 'URV' }).fill('100');
  await page.getByRole('combobox', { name: 'Transfer function' }).click();
  await page.getByRole('option', { name: 'square root, cut to zero at low flow' }).click();
  await page.getByRole('combobox', { name: 'Even in' }).click();
  await page.getByRole('option', { name: 'output (flow)' }).click();
  await page.getByRole('textbox', { name: 'Step, %' }).fill('50');
  const rows = page.getByRole('region', { name: 'Expected values' }).getByRole('row');
  await expect(rows).toHaveCount(4);
  await expect(rows.nth(2)).toHaveText(/25\.00.*25\.0.*12\.000.*50\.00.*50\.0/);

  await page.getByRole('textbox', { name: 'Reading, mA' }).fill('12');
  await expect(page.getByText('25.0 mbar; the display shows 50.0 %')).toBeVisible();
  await page.getByRole('button', { name: 'Show the working of the reading' }).click();
  await expect(page.getByText('square of the flow, with its sign')).toBeVisible();

  const end = page.getByRole('slider', { name: 'Input at 100 %, mbar' });
  await end.press('ArrowRight');
  const moved = Number(await page.getByRole('textbox', { name: 'URV' }).inputValue());
  expect(moved).toBeGreaterThan(100);
  const handle = await end.boundingBox();
  if (handle === null) throw new Error('the end of the range is not there');
  await page.mouse.move(handle.x + 22, handle.y + 22);
  await page.mouse.down();
  await page.mouse.move(handle.x - 120, handle.y + 22, { steps: 5 });
  await page.mouse.up();
  expect(Number(await page.getByRole('textbox', { name: 'URV' }).inputValue())).toBeLessThan(moved);

  await page.getByRole('textbox', { name: 'URV' }).fill('100');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'CSV' }).click();
  const csv = await readFile(await (await download).path(), 'utf8');
  expect(csv).toContain('"Applied, mbar","Output, mA"');
  expect(csv).toContain('25.00,25.0,12.000,50.00,50.0');

  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('textbox', { name: 'URV' })).toBeHidden();
  await expect(rows.nth(2)).toBeVisible();
  await page.emulateMedia({ media: 'screen' });

  await page.getByRole('textbox', { name: 'URV' }).fill('0');
  await expect(page.getByText('The input range has no span')).toBeVisible();
  await expect(page.getByRole('textbox', { name: 'URV' })).toHaveValue('0');
});

test('a budget is computed, judged, and run as trials that can be stopped', async ({ page }) => {
  await page.goto('/workshop/uncertainty');
  await expect(page.getByText('0.078 ± 0.036 % of span')).toBeVisible();
  await expect(page.getByRole('row', { name: /^p / })).toContainText('47.6 %');
  await expect(page.getByText('below the 4 : 1 of common practice')).toBeVisible();

  await page.getByRole('textbox', { name: 'Half width' }).first().fill('0.0003');
  await expect(page.getByText('0.078 ± 0.029 % of span')).toBeVisible();
  const model = page.getByRole('textbox', { name: 'Model: the result as a formula of the inputs' });
  const good = await model.inputValue();
  await model.fill('100 * (I + q)');
  await expect(page.getByText('The formula uses "q", which is none of its inputs').first()).toBeVisible();
  await expect(model).toHaveValue('100 * (I + q)');
  await model.fill(good);
  await page.getByRole('textbox', { name: 'Half width' }).first().fill('-1');
  await expect(page.getByText('must not be negative').first()).toBeVisible();
  await page.getByRole('textbox', { name: 'Half width' }).first().fill('0.003');
  await page.getByRole('button', { name: 'Add a correlation' }).click();
  await page.getByRole('combobox', { name: 'Input', exact: true }).click();
  await page.getByRole('option', { name: 'p', exact: true }).click();
  await expect(page.getByText('a correlation is between two of them').first()).toBeVisible();
  await page.getByRole('combobox', { name: 'With input' }).click();
  await page.getByRole('option', { name: 'dp', exact: true }).click();
  await page.getByRole('textbox', { name: 'r, −1 to 1' }).fill('1');
  await expect(page.getByText('degrees of freedom are not given where inputs are correlated')).toBeVisible();
  await page.getByRole('button', { name: 'Remove', exact: true }).click();

  const [trials, seed] = [page.getByRole('combobox', { name: 'Trials' }), page.getByLabel('Seed')];
  await trials.click();
  await page.getByRole('option', { name: '5 000 000' }).click();
  await seed.fill('7');
  // Another budget leaves how it is tried as it was chosen.
  await page.getByRole('textbox', { name: 'Half width' }).first().fill('0.002');
  await expect(page.getByText('0.078 ± 0.032 % of span')).toBeVisible();
  await page.getByRole('textbox', { name: 'Half width' }).first().fill('');
  await expect(page.getByText('Trials are run once the budget can be read.')).toBeVisible();
  await page.getByRole('textbox', { name: 'Half width' }).first().fill('0.003');
  await expect(page.getByText('0.078 ± 0.036 % of span')).toBeVisible();
  await expect(trials).toHaveText('5 000 000');
  await expect(seed).toHaveValue('7');
  await seed.fill('1');
  await page.getByRole('button', { name: 'Run the trials' }).click();
  await expect(page.getByRole('progressbar', { name: 'Trials run' })).toBeVisible();
  await page.getByRole('button', { name: 'Stop' }).click();
  await expect(page.getByRole('progressbar', { name: 'Trials run' })).toBeHidden();
  await trials.click();
  await page.getByRole('option', { name: 'until stable' }).click();
  await page.getByRole('button', { name: 'Run the trials' }).click();
  await expect(page.getByText('stable to two digits of the standard uncertainty')).toBeVisible();
  const figure = page.getByRole('region', { name: 'Monte Carlo beside the budget' }).getByRole('row').nth(2);
  await expect(figure).toContainText(/0\.018\d+0\.018125/);
  await expectAccessible(page);

  await page.getByRole('button', { name: 'Show the working of the budget' }).click();
  await expect(page.getByText('Effective degrees of freedom (Welch and Satterthwaite)')).toBeVisible();
  await page.reload();
  await expect(page.getByText('0.078 ± 0.036 % of span')).toBeVisible();
});

/** Arrangements with ranges worked by hand: density x g x height, in mbar (1 m of water is 98.0665). */
const LEVELS: readonly (readonly [arrangement: string, address: string, range: string, warning: string])[] = [
  [
    'Open tank',
    'arrangement=open&liquid=1000&full=3&drop=0.8',
    '4 mA at 78.5 and 20 mA at 372.7 mbar',
    'above zero',
  ],
  [
    'Tank on a standpipe',
    'arrangement=standpipe&liquid=1000&full=8&drop=30',
    '4 mA at 2942.0 and 20 mA at 3726.5 mbar',
    'above zero',
  ],
  [
    'Bubbler',
    'arrangement=bubbler&liquid=1180&full=3&loss=2',
    '4 mA at 2.0 and 20 mA at 349.2 mbar',
    'above zero',
  ],
  [
    'Open tank, one remote seal',
    'arrangement=one-seal&liquid=1250&fill=960&full=3.6&drop=1.2',
    '4 mA at 113.0 and 20 mA at 554.3 mbar',
    'above zero',
  ],
  [
    'Closed tank, dry leg',
    'arrangement=dry-leg&liquid=750&above=0&full=2&taps=2.2&drop=0.5',
    '4 mA at 36.8 and 20 mA at 183.9 mbar',
    'above zero',
  ],
  [
    'Closed tank, wet leg',
    'arrangement=wet-leg&liquid=800&fill=1000&above=0&full=2.5&taps=2.5&drop=0',
    '4 mA at −245.2 and 20 mA at −49.0 mbar',
    'below zero',
  ],
  [
    'Closed tank, two remote seals',
    'arrangement=two-seals&liquid=1100&fill=934&above=0&full=4&taps=4.2&drop=1.5',
    '4 mA at −384.7 and 20 mA at 46.8 mbar',
    'below zero',
  ],
  [
    'Interface of two liquids',
    'arrangement=interface&liquid=1040&above=870&fill=934&zero=0.2&full=1.8&taps=2&drop=0',
    '4 mA at −9.22 and 20 mA at 17.46 mbar',
    'below zero',
  ],
];

test('a level is ranged in every arrangement, dragged, doubted, and handed to an instrument', async ({
  page,
}) => {
  for (const [name, address, range, zero] of LEVELS) {
    await page.goto(`/workshop/level?${address}&level=1`);
    await expect(page.getByRole('heading', { name: `Set ${range}` })).toBeVisible();
    await expect(page.getByText(new RegExp(`^0 % lies ${zero}`))).toBeVisible();
    await expect(page.getByRole('group', { name: new RegExp(`^${name}, level 1.000 m`) })).toBeVisible();
  }

  // What is wrong is said at its field, and nothing typed is lost.
  await page.getByLabel('Between the taps').fill('-2');
  await expect(
    page.getByText('The distance between the taps must be greater than zero').first(),
  ).toBeVisible();
  await page.getByLabel('Between the taps').fill('2');
  await page.getByLabel('Light liquid').fill('1100');
  await expect(page.getByText('The densities above and below the level').first()).toBeVisible();

  // The level goes by key and by hand, and stays in the address.
  await page.goto('/workshop/level?arrangement=open&liquid=1000&full=3&drop=0&level=1&liquidNow=950');
  const level = page.getByRole('slider', { name: 'Level' });
  await level.focus();
  await page.keyboard.press('PageUp');
  await expect(page.getByLabel('Level', { exact: true }).and(page.getByRole('textbox'))).toHaveValue('1.3');
  const box = await level.boundingBox();
  await page.mouse.move((box?.x ?? 0) + 40, (box?.y ?? 0) + (box?.height ?? 0) / 2);
  await page.mouse.down();
  await page.mouse.move((box?.x ?? 0) + 40, (box?.y ?? 0) - 60, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByRole('row', { name: /liquid at 950/ })).toContainText('−5.0 % when full');
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Set 4 mA at 0.0 and 20 mA at 294.2 mbar' })).toBeVisible();
  await page.getByRole('button', { name: /Show the working of the range/ }).click();
  await expect(page.getByText('hydrostatics, common practice').first()).toBeVisible();
  await expectAccessible(page);

  await page.getByLabel('Tag of the instrument').fill('lt-2401');
  await page.getByRole('link', { name: 'As the next configuration of LT-2401' }).click();
  await expect(page.getByLabel('URV', { exact: true })).toHaveValue('294.199');
  await expect(page.getByLabel('Why', { exact: true })).toHaveValue(
    'Level, open tank: 0 % at 0.000, 100 % at 3.000 m',
  );
  await expect(page.getByRole('region', { name: 'Another range: who has to know' })).toBeVisible();
});

test('a boiler drum is ranged, read at other pressures, and checked hot', async ({ page }) => {
  // 40 bar absolute, leg at 40 °C, 600 mm between the taps: case D-P17 of the core, -57.300 and -11.507 mbar.
  await page.goto('/workshop/drum?kind=absolute&drop=0');
  await expect(
    page.getByRole('heading', { name: 'Hot: set 4 mA at −57.30 and 20 mA at −11.51 mbar' }),
  ).toBeVisible();
  const shown = page.getByRole('region', { name: 'Shown, by true level' });
  await expect(shown.getByRole('row', { name: /^40 bar/ })).toContainText('50.0');
  await expect(page.getByRole('region', { name: 'Hot check' })).toContainText('Densities explain');
  await page.getByLabel('Leg, °C').first().fill('280');
  await expect(page.getByText(/it boils below/).first()).toBeVisible();
  await page.getByLabel('Leg, °C').first().fill('60');
  await expect(page.getByRole('heading', { name: /^Hot: set 4 mA at/ })).toBeVisible();
  await expect(page.getByText('Steam and hot water scald.')).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'CSV' }).click();
  expect(await readFile(await (await download).path(), 'utf8')).toContain('Shown at a true level of 50 %');
  await page.reload();
  await expect(page.getByLabel('Leg, °C').first()).toHaveValue('60');
});

test('a range change is judged against the body, and handed to its instrument', async ({ page }) => {
  await page.goto('/workshop/range-change');
  await page.getByLabel('Instrument, by its tag').fill('pt-2107');
  await page.getByRole('button', { name: 'Take its range' }).click();
  await expect(
    page.getByRole('heading', { name: 'Fits: it is set at the instrument: Gauge cell 16 bar' }),
  ).toBeVisible();
  // The page stands as the server made it before its script hears what is typed.
  await expect(async () => {
    await page.getByLabel('New URV').fill('61');
    await page.getByLabel('New URV').fill('60');
    await expect(page.getByText(/above the upper range limit of 16 bar/)).toBeVisible({ timeout: 2000 });
  }).toPass();
  await expect(
    page.getByRole('heading', { name: 'Does not fit this body: Gauge cell 16 bar' }),
  ).toBeVisible();
  await page.getByLabel('New URV').fill('4');
  await page.getByRole('slider', { name: /Input at 100 %/ }).focus();
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByLabel('New URV')).not.toHaveValue('4');
  await page.getByLabel('New URV').fill('4');
  await page.reload();
  await expect(page.getByLabel('New URV')).toHaveValue('4');
  await page.getByRole('link', { name: 'As the next configuration of PT-2107' }).click();
  await expect(page.getByLabel('URV', { exact: true })).toHaveValue('4');
  await page.goto('/workshop/range-change?tag=XX-1');
  await expect(page.getByText('There is no instrument XX-1.')).toBeVisible();
});

test('every calculation is at the API, and what is wrong is named at its field', async ({ request }) => {
  const compute = (name: string, data: object) => request.post(`/api/v1/compute/${name}`, { data });
  const converted = await compute('convert', { value: 25, from: 'kPa', to: 'inH2OAt4C' });
  expect(converted.status()).toBe(200);
  expect(((await converted.json()) as { value: number }).value).toBeCloseTo(100.36857931411, 9);
  const wrong = await compute('expected-output', {
    range: { lrv: 5, urv: 5, outputLow: 4, outputHigh: 20 },
    applied: 1,
  });
  expect(wrong.status()).toBe(422);
  expect(wrong.headers()['content-type']).toContain('application/problem+json');
  expect(await wrong.json()).toMatchObject({ status: 422, field: 'range.urv' });
  expect((await compute('nothing', {})).status()).toBe(404);
  const described = (await (await request.get('/api/v1/openapi.json')).json()) as { paths: object };
  expect(Object.keys(described.paths)).toContain('/api/v1/compute/monte-carlo');
});
