/** What a job does besides the readings: valves that are wrong, slips, another person, notes, review and amendment. */
import { comeAs, expectAccessible, savedLine, tellOfRange, workAs } from './support/hands';
import { pagesOfPdf } from './support/pdf';
import { expect, test, type Works } from './support/works';

const jobAt = async (works: Works, tag: string): Promise<number> => {
  const [row] = await works.query<{ id: number }>(
    `select max(job.id)::int as id from job join instrument on instrument.id = instrument_id where tag = '${tag}'`,
  );
  return row?.id ?? 0;
};

/** The smallest picture that a browser shows: one pixel. */
const PIXEL = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

test('a wrong valve is told before it is kept, and stays in the record where it was moved', async ({
  page,
  works,
}) => {
  const job = await jobAt(works, 'PT-2301');
  await workAs(page, 'Technician A', `/jobs/${job}/isolate`);
  await expect(
    page.getByRole('img', { name: /Tank nozzle: nozzle valve closed, drain closed/ }),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Next: open drain' }).click();
  await expect(page.getByText('Isolated: all valves stand right.')).toBeVisible();

  await page.getByRole('button', { name: 'Open nozzle valve' }).click();
  const dialog = page.getByRole('dialog', { name: 'Open nozzle valve? Not now.' });
  await expect(dialog).toContainText('The vent is open with the process behind it');
  await expectAccessible(page);
  await dialog.getByRole('button', { name: 'Leave it as it is' }).click();
  await expect(page.getByText('Isolated: all valves stand right.')).toBeVisible();

  await page.getByRole('button', { name: 'Open nozzle valve' }).click();
  await dialog.getByRole('button', { name: 'It was moved, keep it' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'Close the vent, then the block.' })).toBeVisible();
  await page.getByRole('button', { name: 'Isolated, connect' }).click();
  await expect(page.getByText(/^Not answered yet: Zero energy proven/)).toBeVisible();
  await page.getByRole('checkbox', { name: /Zero energy proven/ }).check();
  await page.getByRole('button', { name: 'Isolated, connect' }).click();
  await expect(
    page.getByText('The valves do not stand right yet: Nozzle valve is still open.'),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Close nozzle valve', exact: true }).click();
  await expect(page.getByText('Isolated: all valves stand right.')).toBeVisible();

  // Passed over with a reason, the record says so.
  await page.getByRole('button', { name: 'Pass over this stage' }).click();
  await page.getByRole('button', { name: 'Pass over it', exact: true }).click();
  await expect(page.getByText('Say why: the stage is passed over.')).toBeVisible();
  await page.getByRole('textbox', { name: /Why this stage is passed over/ }).fill('taken off to the bench');
  await page.getByRole('button', { name: 'Pass over it', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Connected, begin as found' })).toBeVisible();
  await page.goto(`/jobs/${job}/record`);
  await expect(page.getByRole('region', { name: 'Valves as they were moved' })).toContainText(
    'The vent is open with the process behind it',
  );
  await expect(page.getByText('taken off to the bench')).toBeVisible();
  await expect(page.getByRole('list', { name: 'Stages' })).toContainText('Isolate (skipped)');
});

test('slips are asked once, a bad approach is kept, and another person takes the run over', async ({
  page,
  browser,
  works,
}) => {
  // PT-2215: 0 … 4 bar, six of nine points read; next is 50 % falling, 12.000 mA.
  const job = await jobAt(works, 'PT-2215');
  await workAs(page, 'Technician B', `/jobs/${job}/as-found`);
  const field = page.getByRole('textbox', { name: 'Reading at 50 % falling, in mA' });
  await expect(field).toBeFocused();
  await page.keyboard.type('120.4');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'a digit too many' })).toContainText(
    'Expected is about 12.000',
  );
  await field.fill('');
  await page.keyboard.press('o');
  await expect(page.getByText('overshot once')).toBeVisible();
  await page.keyboard.press('t');
  await expect(page.getByRole('timer')).toContainText('settling');
  await page.keyboard.press('n');
  await page.getByRole('textbox', { name: 'Note at this point' }).fill('pump hunts');
  await page.keyboard.press('Enter');
  await expect(page.getByText('note: pump hunts')).toBeVisible();
  await expectAccessible(page);

  // Units may be typed; another unit is answered at the field.
  await field.fill('12.04 bar');
  await field.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'bar cannot be given as mA' })).toBeVisible();
  await field.fill('12,04 mA');
  await field.press('Enter');
  await expect(page.getByRole('textbox', { name: 'Reading at 25 % falling, in mA' })).toBeFocused();
  await expect(savedLine(page)).toHaveText(/^saved /);

  // Beyond what the standard reaches nothing is entered.
  await page.keyboard.press('a');
  await page.getByRole('textbox', { name: /^Applied value at 25 % falling/ }).fill('400');
  await page.keyboard.press('Enter');
  await page.keyboard.type('8.0');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert').filter({ hasText: 'is over-ranged' })).toBeVisible();
  await page.getByRole('textbox', { name: /^Applied value at 25 % falling/ }).press('Escape');

  // A second browser sees who is at it and takes over.
  const other = await (await browser.newContext({ baseURL: works.url })).newPage();
  await workAs(other, 'Technician A', `/jobs/${job}/as-found`);
  await expect(other.getByText(/^Technician B is at this job since/)).toBeVisible();
  await expect(other.getByRole('textbox', { name: /^Reading at/ })).toHaveCount(0);
  await other.getByRole('button', { name: 'Take the job over' }).click();
  await expect(other.getByRole('textbox', { name: 'Reading at 25 % falling, in mA' })).toBeFocused();
  // Whoever comes back to the first one sees it, and has nothing to type into any more.
  await page.evaluate(() => window.dispatchEvent(new Event('focus')));
  await expect(page.getByText(/^Technician A is at this job since/)).toBeVisible();
  await expect(page.getByRole('textbox', { name: /^Reading at/ })).toHaveCount(0);
  await other.keyboard.type('8.021');
  await other.keyboard.press('Enter');
  await other.keyboard.press('x');
  await other
    .getByRole('textbox', { name: 'Why there is no reading at this point' })
    .fill('bleed valve sticks');
  await other.keyboard.press('Enter');
  await expect(other.getByRole('button', { name: 'Judge' })).toBeFocused();
  await other.getByRole('textbox', { name: 'Note' }).fill('wet cover');
  await other.getByRole('combobox', { name: 'Of' }).click();
  await other.getByRole('option', { name: '25 % falling' }).click();
  await other
    .getByLabel('Photograph or PDF')
    .setInputFiles({ name: 'cover.png', mimeType: 'image/png', buffer: PIXEL });
  await other.getByRole('button', { name: 'Add' }).click();
  await expect(other.getByRole('img', { name: 'wet cover' })).toBeVisible();
  await expect(other.getByText(/^As found at 25 % falling, pass 1, Technician A/)).toBeVisible();
  const kept = await works.query<{ text: string; by: string }>(
    `select output_text as text, person.name as by from reading join person on person.id = read_by
     where run_id = (select max(run.id) from run where job_id = ${job}) and position = 8`,
  );
  expect(kept).toEqual([{ text: '8.021', by: 'Technician A' }]);
  await page.reload();
  await expect(page.getByText(/^Technician A is at this job since/)).toBeVisible();

  // The whole run can be thrown away with a reason, and is begun anew.
  await other.getByRole('button', { name: 'Throw this run away' }).click();
  await other.getByRole('textbox', { name: /Why it does not count/ }).fill('the pump leaked');
  await other.getByRole('button', { name: 'Throw away and begin anew' }).click();
  await expect(other.getByRole('textbox', { name: 'Reading at 0 % rising, in mA' })).toBeFocused();
  await other.goto(`/jobs/${job}/record`);
  await expect(other.getByRole('region', { name: 'As found (thrown away)' })).toContainText(
    'the pump leaked',
  );
});

test('a job is sent back, accepted, amended, and read as PDF, CSV and JSON', async ({ page, works }) => {
  const job = await jobAt(works, 'PT-5108');
  await workAs(page, 'Reviewer', '/');
  await page
    .getByRole('region', { name: 'To review' })
    .getByRole('link', { name: /PT-5108/ })
    .click();
  // A safety function is judged with a guard band, which the corridor shows.
  await expect(page.getByText('dotted: guard band')).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Send back' }).click();
  await expect(page.getByText('Say why: the technician has to know what to put right.')).toBeVisible();
  await page.getByRole('textbox', { name: /^Remark/ }).fill('which pump?');
  await page.getByRole('button', { name: 'Send back' }).click();
  // A reviewer does not sign in the technician's place.
  await expect(page.getByText('From the review, sent back: which pump?')).toBeVisible();

  // Whoever is named at the head of certificates is so from the next signature on.
  await workAs(page, 'Administrator', '/office/settings');
  const customer = page.getByRole('textbox', { name: 'Customer', exact: true });
  await customer.fill('Lower Weir Boiler House');
  await page.getByRole('textbox', { name: 'Address of the customer' }).fill('2 Weir Road');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Keep the letterhead' }).click();
  await expect(page.getByText('Kept.')).toBeVisible();

  await workAs(page, 'Technician A', `/jobs/${job}`);
  await page.getByRole('textbox', { name: 'Note' }).fill('hand pump 3');
  await page
    .getByLabel('Photograph or PDF')
    .setInputFiles({ name: 'pump.png', mimeType: 'image/png', buffer: PIXEL });
  await page.getByRole('button', { name: 'Add' }).click();
  await expect(page.getByRole('img', { name: 'hand pump 3' })).toBeVisible();
  await page
    .getByLabel('Photograph or PDF')
    .setInputFiles({ name: 'pump.png', mimeType: 'image/png', buffer: Buffer.from('<svg/>') });
  await page.getByRole('button', { name: 'Add' }).click();
  await expect(page.getByText('it is no JPEG, PNG, WebP or PDF')).toBeVisible();
  await page.getByRole('textbox', { name: 'Remark' }).fill('pump 3');
  await page.getByRole('button', { name: 'Sign as Technician A' }).click();
  await expect(page).toHaveURL(/\/record$/);
  await workAs(page, 'Administrator', '/office/settings');
  await customer.fill('Somebody else');
  await page.getByRole('button', { name: 'Keep the letterhead' }).click();
  await expect(page.getByText('Kept.')).toBeVisible();

  await workAs(page, 'Reviewer', `/jobs/${job}/record`);
  await page.getByRole('button', { name: 'Accept as Reviewer' }).click();
  await expect(page.getByText('Amend this record')).toBeVisible();
  await workAs(page, 'Technician A', `/jobs/${job}/record`);
  await page.getByRole('combobox', { name: 'What is amended' }).click();
  await page.getByRole('option', { name: 'As found, reading at point 3' }).click();
  await page.getByRole('textbox', { name: 'It should say' }).fill('12.5');
  await page.getByRole('button', { name: 'Amend' }).click();
  await expect(page.getByText('an amendment keeps its reason')).toBeVisible();
  await page.getByRole('textbox', { name: 'Why' }).fill('misread from the sheet');
  await page.getByRole('button', { name: 'Amend' }).click();
  await expect(page.getByRole('region', { name: 'Amendments' }).first()).toContainText(
    'misread from the sheet',
  );
  // It counts when a second person has agreed.
  await expect(page.getByRole('region', { name: 'Amendments' }).first()).toContainText(
    'waits for a second person',
  );
  await expect(page.getByText('With the readings as amended')).toBeHidden();
  await expect(page.getByText(/Technician A amends as found, reading at point 3/)).toBeVisible();
  await expectAccessible(page);
  await workAs(page, 'Reviewer', `/jobs/${job}/record`);
  await page.getByRole('button', { name: 'Agree to the amendment' }).click();
  await expect(page.getByText('With the readings as amended')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Amendments' }).first()).toContainText('agreed by Reviewer');

  const file = async (name: string) => {
    const download = page.waitForEvent('download');
    await page.getByRole('link', { name }).click();
    return (await download).path();
  };
  const certificate = (await pagesOfPdf(await file('Download certificate (PDF)'))).join(' ');
  expect(certificate).toContain('is amended to “12.5”; misread from the sheet');
  expect(certificate).toContain('Reviewed and issued');
  expect(certificate).toMatch(/In the trail under seal \d+, [0-9a-f]{4} [0-9a-f]{4}/);
  expect(certificate).toContain('guard band of 1 times the expanded uncertainty');
  expect(certificate).toContain('Lower Weir Boiler House, 2 Weir Road');
  const label = await pagesOfPdf(await file('Label (PDF)'));
  expect(label).toHaveLength(1);
  expect(label[0]).toContain('PT-5108');
  const headers = { cookie: await works.cookieOf('Auditor') };
  const csv = await (await page.request.get(`${works.url}/jobs/${job}/readings.csv`, { headers })).text();
  expect(csv.split('\r\n').length).toBeGreaterThan(9);
  expect(csv).toContain('Expanded uncertainty, %');
  // Numbers stand as numbers, with what was typed beside them.
  expect(csv).toMatch(/,\d+(\.\d+)?,"""\d+\.\d+""",mA,/);
  const json = (await (await page.request.get(`${works.url}/api/v1/jobs/${job}`, { headers })).json()) as {
    amendments: { afterText: string }[];
    runs: { evaluation: { verdict: string } }[];
  };
  expect(json.amendments.map(({ afterText }) => afterText)).toEqual(['12.5']);
  expect(json.runs[0]?.evaluation.verdict).toBe('within');
});

test('a field sheet is printed, and typed in afterwards with the time it was taken', async ({
  page,
  works,
}) => {
  await comeAs(page, 'Technician A');
  const job = await jobAt(works, 'PT-2215');
  for (const paper of ['a4', 'letter']) {
    const sheet = await page.request.get(`${works.url}/jobs/${job}/field-sheet?paper=${paper}`, {
      headers: { cookie: await works.cookieOf('Technician A') },
    });
    expect(sheet.status()).toBe(200);
    expect(sheet.headers()['content-type']).toBe('application/pdf');
  }
  await page.goto(`/jobs/${job}/as-found`);
  await page.getByRole('button', { name: 'From a field sheet' }).click();
  await page.getByLabel('When they were taken').fill('2026-03-01T08:30');
  await page.getByRole('textbox', { name: 'Reading at 50 % falling, in mA' }).fill('12.02');
  await page.keyboard.press('Enter');
  await expect(savedLine(page)).toHaveText(/^saved /);
  await expect(page.getByRole('textbox', { name: 'Reading at 25 % falling, in mA' })).toBeFocused();
  const [reading] = await works.query<{ taken: string; isLater: boolean }>(
    `select to_char(taken_at, 'YYYY-MM-DD') as taken, read_at > taken_at as "isLater" from reading order by id desc limit 1`,
  );
  expect(reading).toEqual({ taken: '2026-03-01', isLater: true });
  await page.goto(`/jobs/${job}/record`);
  await expect(page.getByText(/Taken before they were typed in: point 7 at 1 Mar 2026/)).toBeVisible();
});

test('a range is changed in a job: set anew, connected for it, and run as left in it', async ({
  page,
  works,
}) => {
  // PT-6003: 0 … 5 bar, at Judge, read and outside.
  const job = await jobAt(works, 'PT-6003');
  await workAs(page, 'Technician A', `/jobs/${job}/judge`);
  await page.getByRole('button', { name: 'Range change' }).click();
  await expect(page.getByText('which range is asked for, and why')).toBeVisible();
  await page.getByRole('textbox', { name: /^Remark/ }).fill('0 to 8 bar, the pump was exchanged');
  await page.getByRole('button', { name: 'Range change' }).click();
  const next = page.getByRole('button', { name: 'Begin as left' });
  await expect(next).toBeDisabled();
  await page.getByRole('link', { name: 'Set another range' }).click();
  await expect(page.getByLabel('Why', { exact: true })).toHaveValue(
    `Job ${job}: 0 to 8 bar, the pump was exchanged`,
  );
  await page.getByLabel('URV', { exact: true }).fill('8');
  // The display showed the range, and is asked to follow it.
  await page.getByRole('button', { name: 'Let it follow' }).click();
  await expect(page.getByRole('button', { name: 'Let it follow' })).toBeHidden();
  await tellOfRange(page);
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Put this version in force' }).click();
  const range = page.getByRole('region', { name: 'Range', exact: true });
  await expect(range).toContainText('0 … 8 bar');
  await expect(range).toContainText('0 … 5 bar');
  await expect(page.getByRole('button', { name: /back to Judge/ })).toHaveCount(0);
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Connect for the new range' }).click();

  await expect(page.getByRole('button', { name: 'Connected, begin as left' })).toBeVisible();
  const checks = page.getByRole('region', { name: 'Before the first point' });
  for (const box of await checks.getByRole('checkbox').all()) await box.check();
  await page.getByLabel('Temperature, °C').fill('21');
  await page.getByLabel('Humidity, %').fill('45');
  await page.getByLabel('Barometer, hPa').fill('1009');
  await page.getByRole('button', { name: 'Connected, begin as left' }).click();
  await expect(page.getByText('6.000 bar').first()).toBeVisible();
  // The readings of the other range are not held against these.
  await expect(page.getByText(/^found /)).toHaveCount(0);
  for (const text of ['4.002', '8.001', '12', '15.999', '19.998', '16.003', '12.004', '8.004', '4.002']) {
    await page.keyboard.type(text);
    await page.keyboard.press('Enter');
  }
  await page.getByRole('button', { name: 'Return to service' }).click();
  await expect(
    page.getByRole('checkbox', { name: 'Display, controller and computer have the range that is set' }),
  ).toBeVisible();
  await page.goto(`/jobs/${job}/record`);
  await expect(page.getByRole('region', { name: /^As left/ }).first()).toContainText('within');
  await expect(page.getByText('0 to 8 bar, the pump was exchanged')).toBeVisible();
  // Both connections are told, each with its reference and what was checked.
  await expect(page.getByText('Reference, again')).toBeVisible();
});

test('a job opened by mistake is cancelled; one that needs another standard is connected once more', async ({
  page,
  works,
}) => {
  await workAs(page, 'Technician A', '/instruments/PT-1204');
  await page.getByRole('button', { name: 'Start a job' }).click();
  await page.getByRole('button', { name: 'Cancel this job' }).click();
  await page.getByRole('button', { name: 'Cancel the job' }).click();
  await expect(page.getByText('Say why: a job that was opened stays in the list.')).toBeVisible();
  await page.getByRole('textbox', { name: 'Why it is cancelled' }).fill('meant the one beside it');
  await page.getByRole('button', { name: 'Cancel the job' }).click();
  await expect(page.getByText('Cancelled: nothing was signed.')).toBeVisible();
  await expectAccessible(page);
  // Its instrument is free for another one.
  await page.goto('/instruments/PT-1204');
  await expect(page.getByRole('button', { name: 'Start a job' })).toBeVisible();
  await page.goto('/jobs');
  await expect(page.getByText(/cancelled .*: meant the one beside it/)).toBeVisible();

  // PT-2215 stands in the middle of its readings.
  const job = await jobAt(works, 'PT-2215');
  await page.goto(`/jobs/${job}`);
  await page.getByRole('list', { name: 'Stages' }).getByRole('link', { name: 'Brief' }).click();
  await expect(page.getByRole('heading', { name: 'What to apply and expect' })).toBeVisible();
  await expect(page.getByRole('link', { name: 'A4' })).toBeVisible();
  await page.getByRole('link', { name: 'Back to As found' }).click();
  await page.getByRole('button', { name: 'Connect once more' }).click();
  await page.getByRole('textbox', { name: 'Why it is connected once more' }).fill('the hose leaks');
  await page.getByRole('button', { name: 'Back to Connect' }).click();
  await expect(page).toHaveURL(/\/connect$/);

  // What is typed here is there again after a reload, boxes and choices with it.
  await page.getByRole('radio', { name: 'At the bench' }).check();
  await page.getByRole('checkbox', { name: /Leak check passed/ }).check();
  await page.getByRole('textbox', { name: 'If one is left out: why' }).fill('warm already');
  await page.getByRole('textbox', { name: 'Temperature, °C' }).fill('19.5');
  await page.getByRole('button', { name: /^Height difference/ }).click();
  await page.getByRole('combobox', { name: 'Read beside the output' }).click();
  await page.getByRole('option', { name: 'panel meter' }).click();
  await page.getByRole('textbox', { name: 'At 100 %' }).fill('250');
  await page.reload();
  await expect(page.getByRole('radio', { name: 'At the bench' })).toBeChecked();
  await expect(page.getByRole('checkbox', { name: /Leak check passed/ })).toBeChecked();
  await expect(page.getByRole('textbox', { name: 'If one is left out: why' })).toHaveValue('warm already');
  await expect(page.getByRole('textbox', { name: 'Temperature, °C' })).toHaveValue('19.5');
  await page.getByRole('button', { name: /^Height difference/ }).click();
  await expect(page.getByRole('combobox', { name: 'Read beside the output' })).toHaveText('panel meter');
  await expect(page.getByRole('textbox', { name: 'At 100 %' })).toHaveValue('250');
  await page.getByRole('combobox', { name: 'Read beside the output' }).click();
  await page.getByRole('option', { name: 'nothing else' }).click();
  await page.getByRole('textbox', { name: 'Humidity, %' }).fill('50');
  await page.getByRole('textbox', { name: 'Barometer, hPa' }).fill('1010');
  await page.getByRole('button', { name: 'Connected, begin as found' }).click();
  await expect(page).toHaveURL(/\/as-found$/);
  await page.goto(`/jobs/${job}/record`);
  await expect(page.getByText('Does not count: connected once more: the hose leaks')).toBeVisible();
  // Once it is sent the browser keeps nothing of it.
  expect(
    await page.evaluate(() => Object.keys(localStorage).filter((key) => key.includes('connect'))),
  ).toEqual([]);
});

test('a tag that was changed leads on, and the signed record says what the register says today', async ({
  page,
  works,
}) => {
  await comeAs(page, 'Administrator');
  const [closed] = await works.query<{ id: number; tag: string }>(
    `select id, instrument_copy ->> 'tag' as tag from job where stage = 'closed' order by id desc limit 1`,
  );
  const { id, tag } = closed ?? { id: 0, tag: '' };
  await page.goto(`/instruments/${tag}/edit`);
  await page.getByRole('textbox', { name: 'Tag' }).fill('XX-9001');
  await page.getByRole('textbox', { name: 'Area' }).fill('Yard');
  await page.getByRole('button', { name: 'Keep the changes' }).click();
  await expect(page).toHaveURL(/\/instruments\/XX-9001$/);
  await page.goto(`/instruments/${tag}`);
  await expect(page).toHaveURL(/\/instruments\/XX-9001$/);
  await page.goto(`/jobs/${id}/record`);
  await expect(page.getByRole('heading', { level: 1, name: tag })).toBeVisible();
  await expect(page.getByText('the register says otherwise today: tag XX-9001; area Yard')).toBeVisible();
});

test('on a phone the keys of a run are under the thumb', async ({ page, works }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  const job = await jobAt(works, 'PT-2215');
  await workAs(page, 'Technician A', `/jobs/${job}/as-found`);
  const keys = page.getByRole('toolbar', { name: 'Keys of the run' });
  const field = page.getByRole('textbox', { name: 'Reading at 50 % falling, in mA' });
  await expect(field).toBeFocused();
  for (const key of await keys.getByRole('button').all()) {
    const box = await key.boundingBox();
    expect(box?.height).toBeGreaterThanOrEqual(44);
    expect(box?.width).toBeGreaterThanOrEqual(44);
  }
  await expectAccessible(page);
  await field.fill('12.04');
  await keys.getByRole('button', { name: 'Turn the sign' }).click();
  await expect(field).toHaveValue('-12.04');
  await keys.getByRole('button', { name: 'Turn the sign' }).click();
  await expect(field).toHaveValue('12.04');
  await expect(field).toBeFocused();
  await keys.getByRole('button', { name: 'Overshot' }).click();
  await expect(page.getByText('overshot once')).toBeVisible();
  await keys.getByRole('button', { name: 'Type the applied value' }).click();
  await expect(page.getByRole('textbox', { name: /^Applied value at 50 % falling/ })).toBeFocused();
  // A tap on the point that is now puts the cursor into its field.
  await page.getByRole('button', { name: /^Now 50 % falling/ }).click();
  await expect(page.getByRole('textbox', { name: /at 50 % falling/ }).first()).toBeFocused();
  // The approach that went too far took its reading with it.
  await field.fill('12.04');
  await keys.getByRole('button', { name: 'Enter the reading' }).click();
  await expect(page.getByRole('textbox', { name: 'Reading at 25 % falling, in mA' })).toBeFocused();
  await keys.getByRole('button', { name: 'Note' }).click();
  await page.getByRole('textbox', { name: 'Note at this point' }).fill('the valve sticks');
  await page.keyboard.press('Enter');
  await expect(page.getByText('the valve sticks')).toBeVisible();
  await keys.getByRole('button', { name: /^Leave out/ }).click();
  await expect(page.getByRole('textbox', { name: 'Why there is no reading at this point' })).toBeFocused();
});
