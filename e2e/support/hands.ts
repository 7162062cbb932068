/** What a technician's hands do again and again. */
import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { expect } from './works';

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

/** Signs in as one of the demo's job titles and comes back to where the page was. */
export async function workAs(page: Page, name: string): Promise<void> {
  const at = new URL(page.url() === 'about:blank' ? 'http://x/' : page.url());
  const next =
    at.searchParams.get('next') ?? (at.pathname === '/sign-in' ? '/' : `${at.pathname}${at.search}`);
  await page.goto(`/sign-in?${new URLSearchParams({ next })}`);
  await page.getByRole('button', { name: new RegExp(`^${name}`) }).click();
  await expect(page.getByRole('button', { name, exact: true })).toBeVisible();
  await page.waitForURL((url) => `${url.pathname}${url.search}` === next);
}

/** Nothing that keeps people from using the page (WCAG 2.2 A and AA, as far as a program can tell). */
export async function expectAccessible(page: Page): Promise<void> {
  // The title of a page comes after the page itself.
  await expect(page).toHaveTitle(/./);
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
    .analyze();
  expect(
    violations.map(({ id, nodes }) => `${id}: ${nodes.map(({ target }) => target.join(' ')).join(', ')}`),
  ).toEqual([]);
}

/** The status line that says how far the readings have come. */
export const savedLine = (page: Page) => page.getByRole('status');

/** Opens a job of the demo at its as-found run, by the pages' own forms. */
export async function beginAsFound(page: Page, tag: string): Promise<void> {
  await page.goto(`/instruments/${tag}`);
  await page.getByRole('button', { name: 'Start a job' }).click();
  await page.getByRole('button', { name: 'Brief read, connect' }).click();
  await page.getByRole('checkbox').first().waitFor();
  for (const box of await page.getByRole('checkbox').all()) await box.check();
  await page.getByLabel('Temperature, °C').fill('21');
  await page.getByLabel('Humidity, %').fill('45');
  await page.getByLabel('Barometer, hPa').fill('1009');
  await page.getByRole('button', { name: 'Connected, begin as found' }).click();
  await expect(page.getByRole('textbox', { name: 'Reading at 0 % rising' })).toBeFocused();
}
