/** Instruments at the other end: a link with its simulated bench, and a run that goes by itself there. */
import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { connect } from 'node:net';
import type { Page } from '@playwright/test';
import { expectAccessible, fillConnection, skipToConnect, workAs } from './support/hands';
import { expect, test } from './support/works';

const ROOT = new URL('..', import.meta.url).pathname;
const links: ChildProcess[] = [];
/** A bench whose time goes faster, so that nobody waits for it to settle. */
const SIMULATED = ['--simulated', '--speed', '8'];

test.afterEach(() => {
  for (const link of links.splice(0)) link.kill('SIGKILL');
});

function startLink(page: Page, token: string, ...more: string[]): ChildProcess {
  const link = spawn(
    process.execPath,
    [`${ROOT}scripts/link.mjs`, '--url', new URL(page.url()).origin, ...more],
    { cwd: ROOT, stdio: 'ignore', env: { ...process.env, BARYS_LINK_TOKEN: token } },
  );
  links.push(link);
  return link;
}

/** As an administrator does it once for a bench. */
async function tokenOf(page: Page, name: string): Promise<string> {
  await workAs(page, 'Administrator', '/account');
  await page.getByLabel('What it is for').fill(name);
  await page.getByRole('combobox', { name: 'It may' }).click();
  await page.getByRole('option', { name: 'stand at a bench as a link' }).click();
  await page.getByRole('button', { name: 'Make a token' }).click();
  const made = page.getByText(/^Copy it now/).getByText(/^barys_/);
  return ((await made.textContent()) ?? '').trim();
}

test('a run goes by itself at a bench: watched, held, taken over, handed back, finished', async ({
  page,
}) => {
  const token = await tokenOf(page, 'Bench A');
  await page.goto('/bench');
  await expect(page.getByText('Nothing was heard of it yet.')).toBeVisible();
  const link = startLink(page, token, ...SIMULATED);
  const there = page.getByRole('region', { name: 'At Bench A' });
  await expect(there.getByRole('row', { name: /Controller, pressure .*kPa/ })).toBeVisible({
    timeout: 30_000,
  });
  await expectAccessible(page);
  // Whoever is signed in is told of changes; nobody else is.
  const changes = (credentials: 'include' | 'omit') =>
    page.evaluate(async (how) => {
      const benches = (await (await fetch('/api/v1/bench')).json()) as { id: number; isThere: boolean }[];
      const id = benches.find(({ isThere }) => isThere)?.id;
      const answer = await fetch(`/api/v1/bench/changes?bench=${id}`, { credentials: how });
      if (!answer.ok) return answer.status;
      const reader = answer.body?.getReader();
      let told = 0;
      while (reader !== undefined && told < 3) {
        const { value, done } = await reader.read();
        if (done) break;
        if (new TextDecoder().decode(value).includes('data: changed')) told += 1;
      }
      await reader?.cancel();
      return told;
    }, credentials);
  expect(await changes('include')).toBe(3);
  expect(await changes('omit')).toBe(401);

  await workAs(page, 'Technician A', '/instruments/PT-2215');
  await page.getByRole('link', { name: /^Go on with job/ }).click();
  await page.waitForURL(/\/as-found$/);
  // Six points were typed before; the other three are for the bench.
  await page.getByRole('button', { name: 'Run it at a bench' }).click();
  await page.getByRole('button', { name: 'Run it', exact: true }).click();
  const going = page.getByRole('region', { name: 'By itself at Bench A' });
  await expect(going.getByRole('status')).toContainText(/50 % falling/, { timeout: 30_000 });
  await expect(going).toContainText('bar');
  await going.getByRole('button', { name: 'Hold' }).click();
  await expect(going.getByRole('status')).toContainText('Held by hand.');
  await expectAccessible(page);
  // A server that does not answer is said, and no old value stands as a live one.
  await page.route('**/automatic', (route) => route.abort());
  await expect(going.getByRole('status')).toContainText('The server does not answer');
  await expect(going.getByText('no value')).toHaveCount(2);
  await page.unroute('**/automatic');
  await expect(going.getByRole('status')).toContainText('Held by hand.');
  // Closing the page changes nothing in it, and neither does a link that is killed and started again.
  await page.goto('/');
  link.kill('SIGKILL');
  startLink(page, token, ...SIMULATED);
  await page.goBack();
  await expect(going.getByRole('status')).toContainText('Held', { timeout: 30_000 });
  await going.getByRole('button', { name: 'One point' }).click();
  await expect(going.getByRole('status')).toContainText('It waits after each point.', { timeout: 60_000 });
  await expect(page.getByText('2.000 bar').first()).toBeVisible();
  await expect(going.getByRole('status')).toContainText('25 % falling');

  await going.getByRole('button', { name: 'Take over by hand' }).click();
  await expect(page.getByRole('button', { name: 'Run it at a bench' })).toBeVisible();
  await page.getByLabel(/^Reading at 25 % falling/).fill('8.03');
  await page.keyboard.press('Enter');
  // Handed back, it reads the last point and is finished.
  await page.getByRole('button', { name: 'Run it at a bench' }).click();
  await page.getByRole('button', { name: 'Run it', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Judge', exact: true })).toBeVisible({ timeout: 90_000 });
  await expect(going).toHaveCount(0);
  // The record says which readings nobody typed, and what came over the wire.
  await page.getByRole('link', { name: /record so far/ }).click();
  await expect(
    page.getByText('Read over a link, Bench A (Controller, Loop meter): points 7, 9.'),
  ).toBeVisible();
  await expect(page.getByText(/As it came: point 7: \d\.\d+e\+2,KPA,1, 1\.\d+e-2/)).toBeVisible();
});

test('a fault at the bench is held and said, and its readings are none', async ({ page }) => {
  const token = await tokenOf(page, 'Bench A');
  startLink(page, token, ...SIMULATED, '--fault', 'stuck output=21.5');
  await workAs(page, 'Technician A', '/instruments/PT-2215');
  await page.getByRole('link', { name: /^Go on with job/ }).click();
  const button = page.getByRole('button', { name: 'Run it at a bench' });
  await button.click();
  await page.getByRole('button', { name: 'Run it', exact: true }).click({ timeout: 30_000 });
  const status = page.getByRole('region', { name: 'By itself at Bench A' }).getByRole('status');
  await expect(status).toContainText('The output stands at 21.5 mA and says failure.', { timeout: 30_000 });
  // The link is gone: the page says so, and the run can be taken back.
  for (const link of links.splice(0)) link.kill('SIGKILL');
  await expect(status).toContainText('Nothing is heard of the bench', { timeout: 20_000 });
  await page.getByRole('button', { name: 'Take over by hand' }).click();
  await expect(button).toBeVisible();
});

/** Stand-ins of their own, as somebody starts them beside a link. */
async function startStandIns(): Promise<Record<string, string>> {
  const child = spawn(process.execPath, [`${ROOT}scripts/stand-ins.mjs`, '--speed', '8'], {
    cwd: ROOT,
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  links.push(child);
  child.stdout.setEncoding('utf8');
  const ports: Record<string, string> = {};
  let said = '';
  for await (const bytes of child.stdout) {
    said += String(bytes);
    for (const [, name = '', port = ''] of said.matchAll(/^(.+): 127\.0\.0\.1:(\d+)$/gm)) ports[name] = port;
    if (ports['transmitter'] !== undefined) break;
  }
  return ports;
}

async function enterAddress(page: Page, tag: string, driver: string, port: string): Promise<void> {
  await page.goto(`/references/${tag}/address`);
  await page.getByRole('combobox', { name: 'Begin with' }).click();
  await page.getByRole('option', { name: driver }).click();
  await page.getByLabel('Name or address').fill('127.0.0.1');
  await page.getByLabel('Port', { exact: true }).fill(port);
  await page.getByRole('button', { name: 'Enter the address' }).click();
  await expect(page.getByRole('button', { name: 'Keep the changes' })).toBeVisible();
}

test('an administrator enters how references are reached, tries them, and a run uses them', async ({
  page,
}) => {
  const ports = await startStandIns();
  const token = await tokenOf(page, 'Bench A');
  await enterAddress(page, 'PC-02', 'Pressure controller, plain text', ports['controller'] ?? '');
  const trial = page.getByRole('region', { name: 'Try it' });
  await trial.getByRole('button', { name: 'Try it' }).click();
  await expect(trial.getByRole('status')).toContainText('Nothing is heard of the link of Bench A');
  startLink(page, token);
  await expect(trial.getByRole('status')).toContainText('It answers as it was entered.', {
    timeout: 30_000,
  });
  const answered = page.getByRole('region', { name: 'What it answered' });
  await expect(answered.getByRole('row', { name: /pressure MEAS:PRES\? .*,KPA,.* kPa/ })).toBeVisible();
  await expectAccessible(page);

  // A driver that does not fit is said, at the question that has the wrong answer.
  await page.getByLabel('Ask who it is').fill('WHO?');
  await page.getByLabel('Its units, a line each').fill('PSI = psi');
  await page.getByRole('button', { name: 'Keep the changes' }).click();
  // What it answered before says nothing of what stands there now.
  await expect(trial.getByRole('status')).toContainText('It is asked who it is');
  await trial.getByRole('button', { name: 'Try it' }).click();
  await expect(trial.getByRole('status')).toContainText('It does not answer as it was entered.', {
    timeout: 30_000,
  });
  await expect(
    answered.getByRole('row', { name: /Who it is WHO\? — It does not answer in time/ }),
  ).toBeVisible();
  await expect(
    answered.getByRole('row', { name: /"KPA" says a unit that its driver does not know/ }),
  ).toBeVisible();
  // What is typed wrongly is said at its field.
  await page.getByLabel('To vent').fill('');
  await page.getByRole('button', { name: 'Keep the changes' }).click();
  await expect(page.getByText('nothing is left under pressure')).toBeVisible();
  await page.getByRole('combobox', { name: 'Begin with' }).click();
  await page.getByRole('option', { name: 'Pressure controller, plain text' }).click();
  await page.getByRole('button', { name: 'Keep the changes' }).click();
  await expect(page.getByText('nothing is left under pressure')).toHaveCount(0);
  await enterAddress(page, 'DM-01', 'Loop meter, by the standard alone', ports['meter'] ?? '');

  await workAs(page, 'Technician A', '/instruments/PT-2215');
  await page.getByRole('link', { name: /^Go on with job/ }).click();
  await page.getByRole('button', { name: 'Run it at a bench' }).click();
  const start = page.getByRole('button', { name: 'Run it', exact: true });
  // What answers is another instrument than the register knows.
  await start.click({ timeout: 30_000 });
  await expect(
    page.getByText(/What answers as \S+ has the serial number SIM-7; the register says/),
  ).toBeVisible();
  const job = page.url();
  for (const tag of ['PC-02', 'DM-01']) {
    await page.goto(`/references/${tag}/edit`);
    await page.getByLabel('Serial number').fill('SIM-7');
    await page.getByRole('button', { name: 'Keep the changes' }).click();
    await page.waitForURL(`**/references/${tag}`);
  }
  await page.goto(job);
  await page.getByRole('button', { name: 'Run it at a bench' }).click();
  await start.click({ timeout: 30_000 });
  const going = page.getByRole('region', { name: 'By itself at Bench A' });
  await expect(going.getByRole('status')).toContainText(/50 % falling/, { timeout: 30_000 });
  await expect(going.getByText('PC-02')).toBeVisible();

  // Its address stays as it is meanwhile.
  await workAs(page, 'Administrator', '/references/PC-02/address');
  // A click before the page listens is none.
  await expect(async () => {
    await page.getByRole('button', { name: 'Remove it' }).click();
    await expect(page.getByText('Bench A is in another run')).toBeVisible({ timeout: 3000 });
  }).toPass();
});

test('a transmitter tells its settings over a link, and they are compared like typed ones', async ({
  page,
}) => {
  const ports = await startStandIns();
  const token = await tokenOf(page, 'Bench A');
  startLink(page, token, ...SIMULATED, '--fault', 'wrong range=25');
  // An interface to a loop is a reference without a range of its own.
  await page.goto('/references/new');
  await page.getByLabel('Tag').fill('HI-01');
  await page.getByLabel('What it is').fill('Interface for HART');
  await page.getByRole('button', { name: 'Add the reference' }).click();
  await page.waitForURL('**/references/HI-01');
  await page.getByRole('link', { name: 'At a bench' }).click();
  await page.getByRole('combobox', { name: 'It speaks' }).click();
  await page.getByRole('option', { name: 'HART over a network' }).click();
  await expect(page.getByLabel('Port', { exact: true })).toHaveValue('5094');
  await page.getByRole('combobox', { name: 'By', exact: true }).click();
  await page.getByRole('option', { name: 'network (UDP)' }).click();
  await page.getByLabel('Name or address').fill('127.0.0.1');
  await page.getByLabel('Port', { exact: true }).fill(ports['transmitter'] ?? '');
  await page.getByRole('button', { name: 'Enter the address' }).click();
  const trial = page.getByRole('region', { name: 'Try it' });
  await trial.getByRole('button', { name: 'Try it' }).click();
  await expect(trial.getByRole('status')).toContainText('It answers as it was entered.', { timeout: 30_000 });
  await expect(
    page.getByRole('row', { name: /Set-up command 15 — 0 to 100 kPa, linear, damping 0.5 s/ }),
  ).toBeVisible();

  await workAs(page, 'Technician A', '/instruments/PT-2215/set-up');
  const over = page.getByRole('region', { name: 'Read it over a link' });
  await over.getByRole('combobox', { name: 'Transmitter' }).click();
  await page.getByRole('option', { name: 'Bench A, Transmitter' }).click();
  await over.getByRole('button', { name: 'Read its settings' }).click();
  await expect(over.getByRole('status')).toContainText('It says that it is PT-2215.', { timeout: 20_000 });
  const row = (name: string) => page.getByRole('group', { name, exact: true });
  await expect(row('Unit, with its water reference')).toContainText('as it has to be');
  await expect(row('Lower range value')).toContainText('as it has to be');
  await expect(row('Upper range value')).not.toContainText('as it has to be');
  await expect(row('Damping of the output')).toContainText('as it has to be');
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Keep what was read' }).click();
  await expect(page.getByText('Read over the link: Bench A, Transmitter.').last()).toBeVisible();
  // A job that was opened under another tag leads to the walk of the instrument all the same.
  await page.goto('/instruments/PT-2215/edit');
  await page.getByLabel('Tag', { exact: true }).fill('PT-2216');
  await page.getByRole('button', { name: 'Keep the changes' }).click();
  await page.waitForURL('**/instruments/PT-2216');
  await page.goto('/instruments/PT-2215/set-up?urv=5');
  await expect(page).toHaveURL(/\/instruments\/PT-2216\/set-up\?urv=5/);
  await expect(row('Upper range value').getByRole('textbox')).toHaveValue('5');
  // The other one is not this instrument, and that is said.
  await over.getByRole('combobox', { name: 'Transmitter' }).click();
  await page.getByRole('option', { name: 'Bench A, HI-01' }).click();
  await over.getByRole('button', { name: 'Read its settings' }).click();
  await expect(over.getByRole('status')).toContainText('It says that it is SIM-1, and this is PT-2216.', {
    timeout: 20_000,
  });
});

test('a transmitter is read, changed and read again in a job, and the log says so', async ({ page }) => {
  const token = await tokenOf(page, 'Bench A');
  startLink(page, token, ...SIMULATED, '--fault', 'offset=0.6');
  await workAs(page, 'Technician A', '/instruments/PT-6003');
  await page.getByRole('link', { name: /^Go on with job/ }).click();
  await page.waitForURL(/\/judge$/);
  await page.getByRole('button', { name: 'Adjust', exact: true }).click();
  await page.waitForURL(/\/adjust$/);
  const over = page.getByRole('region', { name: 'Over a link' });
  await over.getByRole('button', { name: 'Read it' }).click({ timeout: 30_000 });
  await expect(over).toContainText('PT-6003, number 000007', { timeout: 20_000 });
  // What is applied is asked for, and what is missing is said at its field.
  const change = over.getByRole('button', { name: 'Change it' });
  await change.click();
  await expect(over.getByText('Say what is applied: the log keeps it.')).toBeVisible();
  await over.getByLabel(/^Applied now/).fill('0');
  await change.click();
  await expect(over.getByText('Done, read again, and logged.')).toBeVisible({ timeout: 20_000 });
  await expect(page.getByRole('row', { name: /^Zero/ })).toContainText(
    /Over the link of Bench A, Transmitter, at PT-6003, number 000007\. Zero trim: digital value/,
  );
  await expectAccessible(page);
  // A loop that is fixed is said, and let go again.
  const act = over.getByRole('combobox', { name: 'What is changed' });
  // By a key: what is said meanwhile moves what is on the page, and a click at that moment lands beside what it was meant for.
  const choose = async (name: string) => {
    await act.press('Enter');
    await page.getByRole('option', { name }).click();
  };
  await choose('Output trim at 4 mA');
  await over.getByLabel('Measured, mA').fill('4.01');
  await over.getByLabel(/^Applied now/).fill('0');
  await change.click();
  await expect(over.getByText(/Command 45 is not done: its loop current is not fixed/)).toBeVisible({
    timeout: 20_000,
  });
  await choose('Fix the loop at 4 mA');
  await change.click();
  await expect(over.getByText(/Its output is fixed and follows no pressure/)).toBeVisible({
    timeout: 20_000,
  });
  await expect(page.getByRole('row', { name: /Its loop current was fixed at 4 mA/ })).toBeVisible();
  await choose('Let the loop go');
  await over.getByLabel(/^Applied now/).fill('0');
  await change.click();
  await expect(over.getByText(/Its output is fixed and follows no pressure/)).toHaveCount(0, {
    timeout: 20_000,
  });
  await expect(page.getByRole('row', { name: /Its loop current was let go/ })).toBeVisible();
});

/** A person at a pump: here the stand-in's controller, driven past Barys. */
async function pump(port: string, kPa: number): Promise<void> {
  const socket = connect(Number(port), '127.0.0.1');
  await once(socket, 'connect');
  socket.write(`UNIT:PRES KPA\nSOUR:PRES ${kPa}\nOUTP:MODE CONT\n`);
  await once(socket.end(), 'close');
}

test('live without a controller: a person works the pump, and Enter takes what stands', async ({ page }) => {
  const ports = await startStandIns();
  const token = await tokenOf(page, 'Bench A');
  startLink(page, token);
  await enterAddress(page, 'PC-02', 'Reference indicator, plain text', ports['indicator'] ?? '');
  await enterAddress(page, 'DM-01', 'Loop meter, by the standard alone', ports['meter'] ?? '');
  for (const tag of ['PC-02', 'DM-01']) {
    await page.goto(`/references/${tag}/edit`);
    await page.getByLabel('Serial number').fill('');
    await page.getByRole('button', { name: 'Keep the changes' }).click();
    await page.waitForURL(`**/references/${tag}`);
  }
  await workAs(page, 'Technician A', '/instruments/PT-2215');
  await page.getByRole('link', { name: /^Go on with job/ }).click();
  await page.getByRole('button', { name: 'Run it at a bench' }).click();
  await page.getByRole('combobox', { name: 'Pressure is worked by' }).click();
  await page.getByRole('option', { name: 'a person, at the pump' }).click();
  await page.getByRole('button', { name: 'Run it', exact: true }).click({ timeout: 30_000 });
  const live = page.getByRole('region', { name: 'Live at Bench A' });
  await expect(live.getByRole('status')).toContainText(/Go there with the pump: .*50 % falling/, {
    timeout: 30_000,
  });
  await expect(live.getByRole('button', { name: 'Vent' })).toHaveCount(0);
  // Half of 4 bar; the stand-in is set to 0 to 100 kPa and saturates, so the reading is far off, and that is seen.
  await pump(ports['controller'] ?? '', 199);
  await expect(live.getByRole('status')).toContainText('It stands', { timeout: 60_000 });
  await expect(live).toContainText(/Error now .* % of span/);
  await expectAccessible(page);
  // Nothing is read before it is wanted; hands leave the pump for one key.
  await page.keyboard.press('Enter');
  await expect(live.getByRole('status')).toContainText('25 % falling', { timeout: 20_000 });
  await live.getByText('As figures').click();
  await expect(live.getByRole('region', { name: 'The last two minutes' })).toBeVisible();
  await live.getByRole('button', { name: 'End' }).click();
  await expect(live).toHaveCount(0);
  await page.getByRole('link', { name: /record so far/ }).click();
  await expect(page.getByText('Read over a link, Bench A (PC-02, DM-01): point 7.')).toBeVisible();
});

test('a loop check goes by itself where its taps are linked, and finds the wrong resistor', async ({
  page,
}) => {
  const token = await tokenOf(page, 'Bench A');
  // 245 ohms stand where 250 should.
  startLink(page, token, ...SIMULATED, '--fault', 'wrong resistor=245');
  await workAs(page, 'Technician A', '/instruments/FT-1305');
  await page.getByRole('combobox', { name: 'Why' }).click();
  await page.getByRole('option', { name: 'Loop check' }).click();
  await page.getByRole('button', { name: 'Start a job' }).click();
  await skipToConnect(page);
  await fillConnection(page);
  await page.getByRole('button', { name: 'Connected, begin as found' }).click();
  await page.getByRole('button', { name: 'Run it at a bench' }).click();
  const form = page.getByRole('region', { name: 'Run it at a bench' });
  // What reads its unit is chosen by itself: volts for the resistor, a display for card and indicator.
  await expect(form.getByRole('combobox', { name: 'R 250 Ω' })).toHaveText('Voltmeter, voltage', {
    timeout: 30_000,
  });
  await expect(form.getByRole('combobox', { name: 'FI-1305' })).toHaveText('Panel, display');
  await form.getByRole('combobox', { name: 'AI-3.7' }).click();
  await page.getByRole('option', { name: 'Receiver, display' }).click();
  await expectAccessible(page);
  await form.getByRole('button', { name: 'Run it', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Judge', exact: true })).toBeVisible({ timeout: 180_000 });
  await page.getByRole('button', { name: 'Judge', exact: true }).click();
  await page.waitForURL(/judge$/);
  const loop = page.getByRole('region', { name: 'The loop', exact: true });
  await expect(loop.getByRole('row', { name: /^R 250 Ω, likely wrong/ })).toContainText('outside');
  await expect(page.getByRole('region', { name: 'What would look like this of R 250 Ω' })).toContainText(
    /24[45]\.?\d* Ω in place of 250 Ω/,
  );
});
