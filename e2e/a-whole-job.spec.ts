import {
  bringBack,
  expectAccessible,
  Keyboard,
  savedLine,
  signInAs,
  walkToConnect,
  workAs,
} from './support/hands';
import { pagesOfPdf } from './support/pdf';
import { expect, test } from './support/works';

/** PT-2107: 0 … 6 bar, ±0.25 % of span, so ±0.040 mA. The first lies exactly on the limit, the third is outside. */
const AS_FOUND = ['4.040', '8.035', '12.041', '16.030', '20.030', '16.036', '12.04', '8,038', '4.039'];
const AS_LEFT = ['4.002', '8.001', '12.000', '15.999', '19.998', '16.003', '12.004', '8.004', '4.002'];

test('a technician does a whole job by keyboard, from Today to the certificate', async ({ page, works }) => {
  const keys = new Keyboard(page);
  await signInAs(page, 'Technician B');
  await expectAccessible(page);

  await page.getByRole('link', { name: /PT-2107/ }).focus();
  await keys.press('Enter');
  await expect(page.getByRole('heading', { name: /PT-2107/ })).toBeVisible();
  await expect(
    page.getByRole('img', {
      name: /Pressure 0 to 6 bar gives 4 to 20 mA; the body reaches from −1 to 16 bar/,
    }),
  ).toBeVisible();
  await expectAccessible(page);
  await expect(page.getByRole('button', { name: 'Start a job' })).toBeFocused();
  await keys.press('Enter');

  // Brief
  await expect(page.getByRole('button', { name: 'Brief read, authorise' })).toBeFocused();
  await expect(page.getByText('hot juice, 95 °C')).toBeVisible();
  const expected = page
    .getByRole('region', { name: 'What to apply and expect' })
    .getByRole('row', { name: /^75 %/ });
  await expect(expected).toHaveText('75 %4.50016.00015.96016.040');
  await expectAccessible(page);
  await keys.press('Enter');

  // Authorise: what is not answered holds the job here.
  await expect(page.getByRole('textbox', { name: /Permit to work/ })).toBeFocused();
  await keys.type('W-2041');
  await keys.press('Enter');
  await expect(page.getByText(/^Not answered yet: Hazardous area/)).toBeVisible();
  await expect(page.getByRole('checkbox', { name: /Heat-proof gloves and sleeves on/ })).toBeVisible();
  await expectAccessible(page);
  await keys.press('Tab', 'Space', 'Tab', 'Space', 'Tab');
  await keys.type('none');
  await keys.press('Tab', 'Space', 'Tab', 'Space', 'Enter');

  // Isolate: the valves in their order, each ticked as it is moved.
  await expect(page.getByRole('button', { name: 'Next: close isolating valve' })).toBeFocused();
  await expectAccessible(page);
  await keys.press('Enter');
  await expect(page.getByRole('button', { name: 'Next: open test and vent valve' })).toBeVisible();
  await keys.press('Enter');
  await expect(page.getByText('Isolated: all valves stand right.')).toBeVisible();
  await page.getByRole('checkbox', { name: /Zero energy proven/ }).focus();
  await keys.press('Space', 'Enter');

  // Connect: the best reference that fits is chosen; the deadweight tester ran out and would need a reason.
  await expect(page.getByRole('radio', { name: /PC-02/ })).toBeChecked();
  await expect(page.getByRole('checkbox').first()).toBeFocused();
  await expect(page.getByRole('radio', { name: /DW-01/ })).toBeHidden();
  await page.getByRole('button', { name: /more are weaker or do not fit/ }).click();
  await expect(
    page.getByRole('radio', { name: /DW-01.*does not fit: its certificate ran out/ }),
  ).toBeEnabled();
  await expectAccessible(page);
  await page.getByRole('checkbox').first().focus();
  // Four checks of the bench, and the damping.
  for (let check = 0; check < 5; check += 1) await keys.press('Space', 'Tab');
  // Past the remark and where it is done, which is on site.
  await keys.press('Tab', 'Tab');
  await keys.type('21.5');
  await keys.press('Tab');
  await keys.type('48');
  await keys.press('Tab');
  await keys.type('1009');
  await keys.press('Enter');

  // As found: digits and Enter, nothing else.
  await expect(page.getByRole('textbox', { name: 'Reading at 0 % rising, in mA' })).toBeFocused();
  await expectAccessible(page);
  keys.presses = 0;
  for (const reading of AS_FOUND) {
    await keys.type(reading);
    await keys.press('Enter');
  }
  expect(keys.presses).toBe(AS_FOUND.join('').length + AS_FOUND.length);
  await expect(savedLine(page)).toHaveText(/^saved \d\d:\d\d:\d\d$/);
  await expect(page.getByRole('listitem').filter({ hasText: '4.040' })).toContainText('+0.250 %');
  await expect(page.getByRole('button', { name: 'Judge' })).toBeFocused();
  await keys.press('Enter');

  // Judge
  const summary = page.getByRole('region', { name: 'As found', exact: true });
  await expect(summary).toContainText('outside');
  await expect(summary).toContainText('+0.256 % of span at 50 % rising');
  await expect(summary).toContainText('Zero error+0.247 % of span');
  await expect(summary).toContainText('Span error−0.059 % of span');
  await expect(summary).toContainText('Hysteresis0.038 % of span');
  const rows = page.getByRole('region', { name: 'Readings as found' }).getByRole('row');
  await expect(rows.nth(1)).toHaveText(/^▲ 0 %0\.0004\.0004\.040\+0\.250\d\.\d{3}within, adjust$/);
  await expect(rows.nth(3)).toHaveText(/^▲ 50 %3\.00012\.00012\.041\+0\.256\d\.\d{3}outside$/);
  await expect(rows.nth(8)).toHaveText(/^▼ 25 %1\.5008\.0008,038\+0\.238\d\.\d{3}within, adjust$/);
  await expect(page.getByText('1 of 9 readings are outside the limit')).toBeVisible();
  const adjust = page.getByRole('button', { name: 'Adjust', exact: true });
  await expect(adjust).toBeFocused();
  await summary.getByRole('button', { name: 'Show the working of the figures of this run' }).click();
  const working = page.getByRole('region', { name: 'Working of the figures of this run' });
  await expect(working).toContainText('Expanded uncertainty of the error, k = 2, about 95 %');
  await expect(working.locator('.katex').first()).toBeVisible();
  await expectAccessible(page);
  await adjust.focus();
  await keys.press('Enter');

  // Adjust: zero, then span; what was read before is there already.
  const after = page.getByRole('textbox', { name: 'After, mA' });
  await expect(after).toBeFocused();
  await expect(page.getByRole('textbox', { name: 'Before, mA' })).toHaveValue('4.040');
  await expectAccessible(page);
  await keys.type('4.001');
  await keys.press('Enter');
  await expect(page.getByRole('row', { name: /^Zero/ })).toContainText('4.040 mA4.001 mA');
  // Something was turned since the run: what the instrument reads before is asked anew.
  const before = page.getByRole('textbox', { name: 'Before, mA' });
  await expect(before).toBeFocused();
  // A zero was advised and is done; whoever sets the span too says so.
  await page.getByRole('combobox', { name: 'What' }).focus();
  await keys.press('ArrowDown');
  await keys.press('ArrowDown');
  await keys.press('Enter');
  await expect(page.getByRole('textbox', { name: 'Applied, bar' })).toHaveValue('6.000');
  await before.focus();
  await keys.type('20.030');
  await keys.press('Tab');
  await expect(after).toBeFocused();
  await keys.type('19.998');
  await keys.press('Enter');
  await expect(page.getByRole('row', { name: /^Span/ })).toContainText('20.030 mA19.998 mA');
  await page.getByRole('button', { name: 'Begin as left' }).focus();
  await keys.press('Enter');

  // As left, over the pale readings of before.
  await expect(page.getByRole('textbox', { name: 'Reading at 0 % rising, in mA' })).toBeFocused();
  await expect(page.getByText('found 12.041')).toBeVisible();
  for (const reading of AS_LEFT) {
    await keys.type(reading);
    await keys.press('Enter');
  }
  await expect(page.getByRole('button', { name: 'Return to service' })).toBeFocused();
  await keys.press('Enter');

  // Return: valves back, then what is asked before the site has its instrument again.
  await expect(page.getByRole('region', { name: 'As left', exact: true })).toContainText('within');
  await expect(page.getByRole('button', { name: 'Next: close test and vent valve' })).toBeFocused();
  await expectAccessible(page);
  await keys.press('Enter');
  await expect(page.getByRole('button', { name: 'Next: open isolating valve' })).toBeVisible();
  await keys.press('Enter');
  await expect(page.getByText('In service: all valves stand right.')).toBeVisible();
  await page.getByRole('checkbox', { name: /Test gear vented/ }).focus();
  await keys.press('Space', 'Tab', 'Space', 'Tab', 'Space', 'Tab');
  await keys.type('3.2 bar, panel 3.2 bar');
  await keys.press('Tab');
  await keys.type('Shift manager');
  await keys.press('Tab', 'Space', 'Enter');

  // Sign
  await expect(page.getByRole('button', { name: 'Sign as Technician B' })).toBeFocused();
  await expectAccessible(page);
  await keys.press('Enter');

  // Whoever read and signed it does not review it; a second person closes it.
  await expect(page).toHaveURL(/\/record$/);
  await expect(page.getByText('It waits for a second person: you had a hand in this job.')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Accept/ })).toHaveCount(0);
  await workAs(page, 'Reviewer');
  await page.getByRole('button', { name: 'Accept as Reviewer' }).click();
  await expect(page.getByText('Amend this record')).toBeVisible();

  // The record and the certificate
  await expect(page).toHaveURL(/\/record$/);
  await expectAccessible(page);
  const download = page.waitForEvent('download');
  await page.getByRole('link', { name: 'Download certificate (PDF)' }).click();
  const file = await download;
  expect(file.suggestedFilename()).toMatch(/^PT-2107-\d+\.pdf$/);
  const pages = await pagesOfPdf(await file.path());
  const text = pages.join(' ');
  for (const words of [
    'Calibration certificate',
    'Marrowfen Sugar Works',
    'PT-2107',
    '0 … 6 bar, 4 … 20 mA, 0 … 6 bar',
    '±0.25 % of output span',
    'PC-02, Pressure calibrator, 20 bar, serial',
    'certificate K-26-0312, due',
    'DM-01, Loop meter',
    '21.5 °C, 48 % relative humidity, 1009 hPa',
    '50 % rising 3.000 12.041 +0.256',
    // One decimal mark on paper, whatever was typed.
    '25 % falling 1.500 8.038 +0.238',
    'Zero at 0.000 bar: 4.040 mA before, 4.001 mA after',
    '4.500 16.003 +0.019',
    'worst error +0.256 % of span',
    'An error on the limit is inside',
    'procedure Five points up and down, version 1',
    'Traceability is claimed',
    'U is the expanded uncertainty of the error, k = 2',
    'by Technician B',
    'by Reviewer',
  ])
    expect(text).toContain(words);
  for (const [index, one] of pages.entries()) expect(one).toContain(`page ${index + 1} of ${pages.length}`);

  // The instrument has the run, and is due a year from today.
  await page.getByRole('link', { name: 'PT-2107' }).first().click();
  await expect(page).toHaveURL(/\/instruments\/PT-2107$/);
  const newest = page.getByRole('region', { name: 'Jobs' }).getByRole('row').nth(1);
  await expect(newest).toContainText('outside');
  await expect(newest).toContainText('Technician B');
  const [{ due } = { due: '' }] = await works.query<{ due: string }>(
    `select to_char(current_date + interval '12 months', 'FMDD Mon YYYY') as due`,
  );
  await expect(page.getByText(`${due} (in 36`)).toBeVisible();
  // All that the journey did is in the trail, and the signature under a seal.
  await page.goto('/office/trail');
  await page.getByRole('button', { name: 'Check the trail' }).click();
  await expect(page.getByText(/^All is as it was written/)).toBeVisible();
});

test('an instrument that is well within is left as found, without an as-left run', async ({
  page,
  works,
}) => {
  await workAs(page, 'Technician A', '/instruments/PT-1204');
  await page.getByRole('button', { name: 'Start a job' }).press('Enter');
  await walkToConnect(page);
  await page.getByLabel('If one is left out: why').fill('bench test, never under pressure');
  await page.getByLabel('Temperature, °C').fill('20');
  await page.getByLabel('Humidity, %').fill('50');
  await page.getByLabel('Barometer, hPa').fill('1,013');
  await page.keyboard.press('Enter');
  await expect(page.getByText('Barometer: type a number from 500 to 1100 hPa.')).toBeVisible();
  await expect(page.getByLabel('If one is left out: why')).toHaveValue('bench test, never under pressure');
  await page.getByLabel('Barometer, hPa').fill('1013');
  await page.keyboard.press('Enter');

  await page.getByRole('textbox', { name: /^Reading at 0 % rising/ }).waitFor();
  const column = ['4.005', '8.004', '12.003', '16.002', '20.001', '16.002', '12.003', '8.004', '4.005'].join(
    '\n',
  );
  await page.evaluate((text) => {
    const data = new DataTransfer();
    data.setData('text', text);
    document.activeElement?.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true }),
    );
  }, column);
  await page.getByRole('button', { name: 'Judge' }).press('Enter');
  await expect(
    page.getByText(/^Leave it as found: not adjusting keeps the drift history clean/),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Leave as found' }).press('Enter');
  await expect(page.getByRole('region', { name: 'Left as found' })).toContainText('within');
  await bringBack(page);
  await expect(page.getByText('Left as found: nothing was adjusted.')).toBeVisible();
  await page.getByRole('button', { name: 'Sign as Technician A' }).press('Enter');
  await expect(page.getByText('bench test, never under pressure')).toBeVisible();
  await expect(page.getByRole('list', { name: 'Stages' })).toContainText('As left (not needed)');
  // From the last reading to the signed record: these acts and no others.
  const acts = await works.query<{ act: string }>(
    `select act from audit_entry
     where id > (select max(id) from audit_entry where act = 'save reading') and act <> 'sign in' order by id`,
  );
  expect(acts.map(({ act }) => act)).toEqual([
    'finish run',
    'decide',
    'move valve',
    'move valve',
    'pass return',
    'sign job',
  ]);
});
