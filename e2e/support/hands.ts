/** What a technician's hands do again and again. */
import type { Locator, Page } from '@playwright/test';
import axe from 'axe-core';
import { expect, worksHere } from './works';

/** Counts every key that a journey presses. */
export class Keyboard {
  presses = 0;
  constructor(private readonly page: Page) {}

  async press(...keys: string[]): Promise<void> {
    for (const key of keys) {
      this.presses += 1;
      await this.page.keyboard.press(key);
    }
  }

  async type(text: string): Promise<void> {
    this.presses += text.length;
    await this.page.keyboard.type(text);
  }
}

/** Signs in as one of the demo's job titles, by the page for it. */
export async function signInAs(page: Page, name: string): Promise<void> {
  await page.goto('/sign-in');
  await page.getByRole('button', { name: new RegExp(`^${name}`) }).click();
  await expect(page.getByRole('button', { name, exact: true })).toBeVisible();
}

/** What leads a page that nobody has signed in at to where it was going, or the page itself. */
function wantedBy(page: Page): string {
  if (page.url() === 'about:blank') return '/';
  const { pathname, search, searchParams } = new URL(page.url());
  return searchParams.get('next') ?? `${pathname}${search}`;
}

/** Gives a browser somebody's session: most journeys are about something else than signing in. */
export async function comeAs(page: Page, name: string): Promise<void> {
  const works = worksHere();
  const [cookie = '', value = ''] = (await works.cookieOf(name)).split('=');
  await page.context().addCookies([{ name: cookie, value, url: works.url, httpOnly: true }]);
}

/** Somebody is at a page that listens. */
export async function workAs(page: Page, name: string, path = wantedBy(page)): Promise<void> {
  await comeAs(page, name);
  await page.goto(path);
  await untilItListens(page.getByRole('button', { name, exact: true }));
}

/** Waits until something on a page answers to what is done with it: before that it would be lost. */
export async function untilItListens(part: Locator): Promise<void> {
  await expect(part).toBeVisible();
  await expect
    .poll(() => part.evaluate((one) => Object.keys(one).some((key) => key.startsWith('__reactProps'))))
    .toBe(true);
}

const STANDARDS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

/** Nothing that keeps people from using the page (WCAG 2.2 A and AA, as far as a program can tell). */
export async function expectAccessible(page: Page): Promise<void> {
  // The title of a page comes after the page itself.
  await expect(page).toHaveTitle(/./);
  // By itself: the usual wrapper gathers all that was found good as well, which takes longer than the finding.
  if (!(await page.evaluate(() => 'axe' in globalThis))) await page.evaluate(axe.source);
  const violations = await page.evaluate(async (standards) => {
    const { violations } = await (globalThis as unknown as { axe: typeof axe }).axe.run({
      runOnly: { type: 'tag', values: standards },
      resultTypes: ['violations'],
    });
    return violations.map(
      ({ id, nodes }) => `${id}: ${nodes.map(({ target }) => target.join(' ')).join(', ')}`,
    );
  }, STANDARDS);
  expect(violations).toEqual([]);
}

/** The status line that says how far the readings have come. */
export const savedLine = (page: Page) => page.getByRole('status');

/** Answers all that a stage asks: ticks, the first of several, a word. */
export async function answerAll(page: Page): Promise<void> {
  for (const box of await page.getByRole('checkbox').all()) await box.check();
  for (const group of await page.getByRole('radiogroup').all())
    if (!(await group.getByRole('radio').first().isChecked())) await group.getByRole('radio').first().check();
  for (const field of await page.getByRole('textbox').all())
    if ((await field.inputValue()) === '') await field.fill('none');
}

/** Answers what another range asks. */
export async function tellOfRange(page: Page): Promise<void> {
  const asked = page.getByRole('region', { name: 'Another range: who has to know' });
  for (const field of await asked.getByRole('textbox').all()) await field.fill('seen to');
}

/** Makes the moves of the valves as they are offered. */
export async function turnValves(page: Page): Promise<void> {
  const next = page.getByRole('button', { name: /^Next: / });
  const right = page.getByText(/all valves stand right/);
  await expect(next.or(right)).toBeVisible();
  while (!(await right.isVisible())) {
    const word = await next.textContent();
    await next.click();
    await expect(next.filter({ hasText: word ?? '' })).toBeHidden();
  }
}

/** From the brief to the connection, by the pages' own forms. */
export async function walkToConnect(page: Page): Promise<void> {
  await expect(page.getByRole('button', { name: 'Brief read, authorise' })).toBeVisible();
  await answerAll(page);
  await page.getByRole('button', { name: 'Brief read, authorise' }).click();
  await expect(page.getByRole('button', { name: 'Authorised, isolate' })).toBeVisible();
  await answerAll(page);
  await page.getByRole('button', { name: 'Authorised, isolate' }).click();
  await turnValves(page);
  await page.getByRole('checkbox', { name: /Zero energy proven/ }).check();
  await page.getByRole('button', { name: 'Isolated, connect' }).click();
  await expect(page.getByRole('button', { name: 'Connected, begin as found' })).toBeVisible();
}

/** The same for an instrument that lies on the bench: there is nothing to authorise and nothing to isolate. */
export async function skipToConnect(page: Page): Promise<void> {
  await expect(page.getByRole('button', { name: 'Brief read, authorise' })).toBeVisible();
  for (const field of await page.getByRole('main').getByRole('textbox').all())
    if ((await field.getAttribute('name'))?.startsWith('answer.')) await field.fill('as it should be');
  await page.getByRole('button', { name: 'Brief read, authorise' }).click();
  for (const here of ['Authorised, isolate', 'Isolated, connect']) {
    await expect(page.getByRole('button', { name: here })).toBeVisible();
    await page.getByRole('button', { name: 'Pass over this stage' }).click();
    await page.getByRole('textbox', { name: /Why this stage is passed over/ }).fill('on the bench');
    await page.getByRole('button', { name: 'Pass over it', exact: true }).click();
  }
  await expect(page.getByRole('button', { name: 'Connected, begin as found' })).toBeVisible();
}

/** Ticks and fills what the connection asks; references stay as they are proposed. */
export async function fillConnection(page: Page): Promise<void> {
  await expect(page.getByRole('button', { name: 'Connected, begin as found' })).toBeVisible();
  const checks = page.getByRole('region', { name: 'Before the first point' });
  for (const box of await checks.getByRole('checkbox').all()) await box.check();
  for (const field of await checks.getByRole('textbox').all())
    if (((await field.getAttribute('name')) ?? '').startsWith('answer.')) await field.fill('as it should be');
  await page.getByLabel('Temperature, °C').fill('21');
  await page.getByLabel('Humidity, %').fill('45');
  await page.getByLabel('Barometer, hPa').fill('1009');
  const standards = page.getByRole('radiogroup', { name: 'Pressure reference' });
  if (await page.getByText('None alone is good enough').isVisible()) {
    await standards.getByRole('radio').first().check();
    await page.getByRole('textbox', { name: /If one that does not fit is used/ }).fill('the best there is');
  }
}

/** From the return to the signature. */
export async function bringBack(page: Page): Promise<void> {
  await turnValves(page);
  await answerAll(page);
  await page.getByRole('button', { name: 'Back in service, sign' }).click();
  await expect(page.getByRole('button', { name: /^Sign as/ })).toBeVisible();
}

/** Brings an instrument's job to its as-found run, by the pages' own forms; one that is open goes on from Connect. */
export async function beginAsFound(page: Page, tag: string): Promise<void> {
  await page.goto(`/instruments/${tag}`);
  const start = page.getByRole('button', { name: 'Start a job' });
  const goOn = page.getByRole('link', { name: /^Go on with job/ });
  await expect(start.or(goOn)).toBeVisible();
  if (await start.isVisible()) {
    await start.click();
    await skipToConnect(page);
  } else await goOn.click();
  await fillConnection(page);
  await page.getByRole('button', { name: 'Connected, begin as found' }).click();
  await expect(
    page.getByRole('textbox', { name: /^Reading.* at .* (rising|falling)/ }).first(),
  ).toBeFocused();
}
