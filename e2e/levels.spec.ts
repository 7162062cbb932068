/** From the workshop into registers and jobs: set-up walk, range-change job, vessel and liquid, boiler drum. */
import { readFile } from 'node:fs/promises';
import { answerAll, comeAs, expectAccessible, untilItListens } from './support/hands';
import { expect, test } from './support/works';

test.beforeEach(({ page }) => comeAs(page, 'Technician A'));

test('a set-up is walked: each difference with what it does, kept, and asked about at the return', async ({
  page,
}) => {
  await page.goto('/workshop/set-up');
  await page.getByLabel('Tag of the instrument').fill('ft-1305');
  await page.getByRole('button', { name: 'Walk its set-up' }).click();
  await expect(page.getByRole('heading', { name: 'FT-1305: set-up walk' })).toBeVisible();
  const row = (name: string) => page.getByRole('group', { name, exact: true });
  for (const name of ['Unit, with its water reference', 'Lower range value', 'Application'])
    await page.getByRole('button', { name: `${name}: the same` }).click();
  await expect(row('Application')).toContainText('as it has to be');
  // By hand: 250 mbar into 0 to 240 is 104.17 % of differential, 102.06 % of flow, 20.330 mA.
  await page.getByLabel('Upper range value, as read').fill('240');
  await expect(row('Upper range value')).toContainText(
    'the output is 20.33 mA instead of 20 mA: +2.06 % of span',
  );
  await expect(row('Upper range value')).toContainText('It matters');
  await page.getByLabel('Damping of the display, as read').fill('0');
  await expect(row('Damping of the display')).toContainText('It changes no figure');
  // What is wrong is said at its field, and a reload loses nothing.
  await page.getByLabel('Damping of the output, as read').fill('two');
  await expect(row('Damping of the output')).toContainText('two');
  await page.getByLabel('Damping of the output, as read').fill('2');
  await page.getByLabel('Output, mA').fill('3.8');
  await expect(page.getByText(/3.8 mA is the saturation/)).toBeVisible();
  await page.reload();
  await expect(page.getByLabel('Upper range value, as read')).toHaveValue('240');
  // The read stave goes by key and by hand, and a link shows the same to somebody else.
  await page.getByRole('slider', { name: /Input at 100 %/ }).focus();
  await page.keyboard.press('ArrowLeft');
  await expect(page.getByLabel('Upper range value, as read')).not.toHaveValue('240');
  await page.getByLabel('Upper range value, as read').fill('240');
  await expect(page).toHaveURL(/urv=240/);
  await expectAccessible(page);
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'CSV' }).click();
  expect(await readFile(await (await download).path(), 'utf8')).toContain(
    'Upper range value,250 mbar,240 mbar',
  );
  await page.getByRole('button', { name: 'Keep what was read' }).click();
  const before = page.getByRole('region', { name: 'What was read before' });
  await expect(before).toContainText('Upper range value: 240 mbar instead of 250 mbar');

  // In a job: as set at Connect, as it must be at Return, where what still differs is asked about; all on the record.
  await page.goto('/instruments/PT-4410');
  await page.getByRole('link', { name: /^Go on with job/ }).click();
  await page.waitForURL(/\/return$/);
  const job = /jobs\/(\d+)/.exec(page.url())?.[1] ?? '';
  const asked = /^Set-up last read otherwise than it must be \(Upper range value\)/;
  await expect(page.getByRole('button', { name: 'Back in service, sign' })).toBeVisible();
  await expect(page.getByText(asked)).toHaveCount(0);
  await page
    .getByRole('region', { name: 'Set-up, as it must be' })
    .getByRole('link', { name: 'Read it' })
    .click();
  await expect(page.getByText(`Read in job ${job}, as it must be.`)).toBeVisible();
  await page.getByLabel('Upper range value, as read').fill('2.4');
  await page.getByRole('button', { name: `Keep, as it must be, in job ${job}` }).click();
  await expect(before).toContainText('Upper range value: 2.4 bar instead of 2.5 bar');
  await page.getByRole('link', { name: `Back to job ${job}` }).click();
  await expect(page.getByText(asked)).toBeVisible();
  await page.goto(`/jobs/${job}/record`);
  await expect(page.getByRole('region', { name: 'Set-up', exact: true })).toContainText('as it must be');
});

test('what was read on a walk shows its working, goes back state by state, and is handed over', async ({
  page,
}) => {
  await page.goto('/instruments/LT-2401/set-up');
  const urv = page.getByLabel('Upper range value, as read');
  const row = page.getByRole('group', { name: 'Upper range value', exact: true });
  const must = (await row.textContent()) ?? '';
  // What follows after a pause is a state of its own; what is typed in one go is not.
  const pause = () => page.waitForTimeout(1500);
  await untilItListens(urv);
  await pause();
  await urv.pressSequentially('300');
  await expect(row).toContainText('It matters');
  await pause();
  await page.getByLabel('Tilt since the zero trim').fill('15');
  await expect(page.getByText(/^Position, (not )?good:/)).toBeVisible();
  await page.goBack();
  await expect(page.getByLabel('Tilt since the zero trim')).toHaveValue('');
  await expect(urv).toHaveValue('300');
  await page.goBack();
  await expect(urv).toHaveValue('');
  await expect(row).toHaveText(must);
  await page.goForward();
  await page.goForward();
  await expect(urv).toHaveValue('300');
  await expect(page.getByLabel('Tilt since the zero trim')).toHaveValue('15');

  await page.getByRole('button', { name: 'Show the working of Upper range value' }).click();
  await expect(page.getByRole('region', { name: 'Working of Upper range value' })).toContainText(
    'Error of the output where it is largest over the range',
  );
  await page.getByRole('button', { name: 'Show the working of Position' }).click();
  await expect(page.getByRole('region', { name: 'Working of Position' })).toContainText('Head of the fill');
  await expectAccessible(page);

  await expect(page.getByLabel('Or a note on it')).toHaveValue(
    /^Set-up: Upper range value: 300 mbar instead of/,
  );
  await page.getByRole('button', { name: 'Keep the note' }).click();
  await expect(page.getByText('Kept with LT-2401.')).toBeVisible();
  await page.getByRole('button', { name: 'Open a range-change job on LT-2401' }).click();
  await expect(page.getByRole('region', { name: 'The new range, as planned' })).toContainText('300 mbar');
  await page.goto('/instruments/LT-2401');
  await page
    .getByRole('region', { name: 'Notes from the workshop' })
    .getByRole('link', { name: 'worked out' })
    .click();
  await expect(urv).toHaveValue('300');
});

test('a worked-out range becomes a job: configuration, points, label, and what must follow', async ({
  page,
}) => {
  await page.goto('/workshop/range-change?tag=LT-1102');
  await page.getByLabel('New URV').fill('400');
  await page.getByRole('button', { name: 'Hold the new range against them' }).click();
  await expect(page.getByText(/The tolerance can be kept, and \S+ fits at every point/)).toBeVisible();
  await expect(page.getByRole('region', { name: 'At every point' }).getByRole('row')).toHaveCount(6);
  await page.getByRole('button', { name: /Show the working of the new range/ }).click();
  await expect(page.getByText('Turndown: the greatest span over it')).toBeVisible();
  await page.getByLabel('Or a note on it').fill('would take 0 to 400 mbar');
  await page.getByRole('button', { name: 'Keep the note' }).click();
  await expect(page.getByText('Kept with LT-1102.')).toBeVisible();
  await page.getByRole('checkbox', { name: /The body is exchanged/ }).check();
  await page.getByRole('button', { name: 'Open a range-change job on LT-1102' }).click();

  await expect(page).toHaveURL(/\/jobs\/\d+\/brief$/);
  const plan = page.getByRole('region', { name: 'The new range, as planned' });
  await expect(plan).toContainText('0 … 400 mbar → 4 … 20 mA → 0 … 45 m³');
  await expect(plan.getByRole('row', { name: /^50 %/ })).toContainText('200');
  const follow = page.getByRole('region', { name: 'What must follow' });
  await expect(follow).toContainText('0 of 7 done');
  await follow.getByRole('checkbox', { name: 'Totaliser factor' }).check();
  await expect(follow).toContainText('1 of 7 done');
  await expect(follow).toContainText('Technician A');
  await expect(page.getByRole('region', { name: 'Exchange of the body' })).toContainText('45 N·m');
  await expectAccessible(page);
  await page.getByRole('link', { name: /record so far/ }).click();
  await expect(
    page.getByRole('region', { name: 'Lists' }).getByRole('row', { name: /Totaliser factor/ }),
  ).toContainText('Technician A');

  // The note leads back to where it was worked out.
  await page.goto('/instruments/LT-1102');
  const notes = page.getByRole('region', { name: 'Notes from the workshop' });
  await expect(notes).toContainText('would take 0 to 400 mbar');
  await notes.getByRole('link', { name: 'worked out' }).click();
  await expect(page.getByLabel('New URV')).toHaveValue('400');
  // A range that the body does not allow opens nothing.
  await page.goto('/workshop/range-change?tag=LT-1101');
  await page.getByLabel('New URV').fill('4');
  await expect(page.getByText(/less than the least span/)).toBeVisible();
  await expect(page.getByRole('button', { name: /Open a range-change job/ })).toHaveCount(0);
});

test('a vessel is kept with its liquid, and a denser liquid asks for another range', async ({ page }) => {
  await page.goto('/office/liquids/new');
  await page.getByLabel('Name').fill('Test syrup');
  await page.getByLabel('Where the figures come from').fill('laboratory');
  await page.getByLabel('Table from a CSV').setInputFiles({
    name: 'syrup.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('temperature,density\n60,1300\n20,1320\n'),
  });
  await page.getByRole('button', { name: 'Add the liquid' }).click();
  await expect(page.getByText(/rise/).first()).toBeVisible();
  await page.getByLabel(/a line each/).fill('20; 1320\n60; 1300');
  await page.getByRole('button', { name: 'Add the liquid' }).click();
  await expect(page.getByRole('link', { name: 'Test syrup' })).toBeVisible();

  // By hand: 1310 kg/m3 x 9.80665 x 2.5 m = 321.168 mbar.
  await page.goto('/workshop/level?arrangement=open&zero=0&full=2.5&drop=0&tag=LT-6010&level=1');
  await page.getByRole('combobox', { name: 'Density of' }).click();
  await page.getByRole('option', { name: 'Test syrup' }).click();
  await page.getByLabel('At, °C').fill('90');
  await page.getByRole('button', { name: 'Take' }).click();
  await expect(page.getByText(/The temperature must be from 20 to 60/).first()).toBeVisible();
  await page.getByLabel('At, °C').fill('40');
  await page.getByRole('button', { name: 'Take' }).click();
  await expect(page.getByRole('heading', { name: 'Set 4 mA at 0.0 and 20 mA at 321.2 mbar' })).toBeVisible();
  await page.getByRole('combobox', { name: 'Shape' }).click();
  await page.getByRole('option', { name: 'strapping table' }).click();
  await page.getByLabel('Table from a CSV').setInputFiles({
    name: 'straps.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('level;volume\n0;0\n1;10\n2,5;40\n'),
  });
  const table = page.getByRole('region', { name: 'Level, differential and output' });
  // Half of 2.5 m is 1.25 m: 10 + 0.25/1.5 x 30 = 15 m3.
  await expect(table.getByRole('row', { name: /^50/ })).toContainText('15');
  await page.getByLabel('Or as its vessel: why').fill('other liquid');
  await page.getByRole('button', { name: 'Keep the vessel' }).click();
  await expect(page.getByText('Kept as a new version of the vessel of LT-6010.')).toBeVisible();

  await page.goto('/instruments/LT-6010');
  const vessel = page.getByRole('region', { name: 'Vessel' });
  await expect(vessel).toContainText('2, ');
  await expect(vessel).toContainText('321.17 mbar');
  await expect(vessel).toContainText('The vessel asks for another range');
  await expectAccessible(page);
  // The plant's table changes: the vessel says so.
  await page.goto('/office/liquids');
  await page.getByRole('link', { name: 'Test syrup' }).click();
  await page.getByLabel(/a line each/).fill('20; 1340\n60; 1320');
  await page.getByRole('button', { name: 'Keep the changes' }).click();
  await expect(page.getByRole('link', { name: 'Test syrup' })).toBeVisible();
  await page.goto('/instruments/LT-6010');
  await expect(vessel).toContainText('The plant’s table says 1330.0 kg/m³ by now');
  await vessel.getByRole('link', { name: 'Work it out again' }).click();
  await expect(page.getByLabel('Tag of the instrument')).toHaveValue('LT-6010');
  await expect(page.getByLabel('Liquid', { exact: true })).toHaveValue('1310');
});

test('a boiler drum is checked hot in a job without a run, and its bias says where it is wrong', async ({
  page,
}) => {
  // Its cold set-up is in hand in the demo: it is cancelled first.
  await page.goto('/instruments/LT-5101');
  await page.getByRole('link', { name: /^Go on with job/ }).click();
  await expect(page.getByRole('region', { name: 'Cold set-up' })).toContainText(
    'Pot filled until water leaves its vent',
  );
  await page.getByRole('button', { name: 'Cancel this job' }).click();
  await page.getByRole('textbox', { name: 'Why it is cancelled' }).fill('checked hot first');
  await page.getByRole('button', { name: 'Cancel the job' }).click();
  await expect(page.getByText('Cancelled: nothing was signed.')).toBeVisible();

  await page.goto('/instruments/LT-5101');
  await expect(page.getByRole('region', { name: 'Biases entered hot' })).toContainText('45.0 bar absolute');
  await page.getByRole('combobox', { name: 'Why' }).click();
  await page.getByRole('option', { name: 'Drum level, hot check' }).click();
  await page.getByRole('button', { name: 'Start a job' }).click();
  await expect(page.getByRole('button', { name: 'Brief read, authorise' })).toBeVisible();
  const job = /jobs\/(\d+)/.exec(page.url())?.[1] ?? '';
  await answerAll(page);
  await page.getByRole('button', { name: 'Brief read, authorise' }).click();
  await expect(page.getByRole('button', { name: 'Authorised, isolate' })).toBeVisible();
  await answerAll(page);
  await page.getByRole('button', { name: 'Authorised, isolate' }).click();
  await expect(page.getByRole('button', { name: 'Back in service, sign' })).toBeVisible();

  await expect(page.getByText('Steam and hot water scald')).toBeVisible();
  // The vessel of the drum comes along, and the job.
  await page.getByRole('link', { name: 'Work it out' }).click();
  await expect(page.getByLabel('In job')).toHaveValue(job);
  await expect(page.getByLabel('Transmitter below')).toHaveValue('1800');
  const hot = page.getByRole('region', { name: 'Hot check' });
  await expect(hot).toContainText('Densities explain');
  await page.getByRole('button', { name: 'Keep the bias' }).click();
  await expect(page.getByText('Say why a bias is entered')).toBeVisible();
  await page.getByRole('button', { name: /^Glass: \+3.0 %/ }).click();
  await expect(page.getByLabel('Bias, % of the range')).toHaveValue('3.00');
  await expect(page.getByRole('img', { name: /Error left by the bias/ })).toBeVisible();
  await expect(page.getByRole('region', { name: 'Error left by the bias' }).getByRole('row')).toHaveCount(7);
  await hot.getByRole('button', { name: 'Show the working of the hot check' }).click();
  await expect(hot.getByRole('region', { name: 'Working of the hot check' })).toContainText(
    'Left unexplained',
  );
  await page.getByLabel('Why it is entered').fill('leg proven full');
  await page.getByRole('button', { name: 'Keep the bias' }).click();
  await expect(page.getByText('Kept with its pressure and level.')).toBeVisible();
  await expectAccessible(page);

  await page.goto(`/jobs/${job}`);
  await expect(page.getByRole('region', { name: 'Glass against transmitter' })).toContainText('+3.0 %');
  await answerAll(page);
  await page.getByRole('button', { name: 'Back in service, sign' }).click();
  await expect(page.getByRole('region', { name: 'Biases entered' })).toContainText('+3.0 %');
  await page.getByRole('button', { name: /^Sign as/ }).click();
  await expect(page.getByText('Without a run there is no certificate.')).toBeVisible();
  await expect(page.getByRole('region', { name: 'Lists' })).toContainText('Gauge glass blown down');
  expect((await page.request.get(`/jobs/${job}/certificate`)).status()).toBe(409);
  expect((await page.request.get(`/jobs/${job}/label`)).status()).toBe(409);
});

test('a body that is stamped with its largest span only is entered, and changed', async ({ page }) => {
  await page.goto('/office/bodies/new');
  await page.getByLabel('Model').fill('Stamped cell 200');
  await page.getByLabel('Lower range limit').fill('-2');
  await page.getByLabel('Upper range limit').fill('200');
  await page.getByLabel('Greatest span').fill('200');
  await page.getByLabel(/^Turndown, where stamped/).fill('4');
  await page.getByRole('button', { name: 'Add the body' }).click();
  await expect(page.getByRole('heading', { name: 'Stamped cell 200' })).toBeVisible();
  // A 4:1 body stamped 200 goes down to 50 (common practice).
  await expect(page.getByLabel('Least span')).toHaveValue('50');
  await page.getByLabel('Least span').fill('40');
  await page.getByLabel('Zero suppression, %').fill('500');
  await page.getByRole('button', { name: 'Keep the changes' }).click();
  await expect(page.getByText('By its stamp the least span is 50')).toBeVisible();
  await page.getByLabel('Least span').fill('');
  await page.getByRole('button', { name: 'Keep the changes' }).click();
  await expect(page.getByLabel('Least span')).toHaveValue('50');
  await page.reload();
  await expect(page.getByLabel('Zero suppression, %')).toHaveValue('500');
  await expectAccessible(page);
});
