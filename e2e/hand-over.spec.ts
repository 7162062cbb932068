/** The list of jobs, and what a shift hands over. */
import { expectAccessible, Keyboard, workAs } from './support/hands';
import { expect, test } from './support/works';

test('jobs are found, filtered, ordered and kept as a view', async ({ page }) => {
  await workAs(page, 'Reviewer', '/jobs');
  const grid = page.getByRole('table', { name: 'Jobs' });
  await page.getByLabel('Find by any part').fill('pt-2107');
  await expect(grid.getByRole('row')).toHaveCount(3);
  await page.getByRole('button', { name: 'Show all' }).click();
  await page.getByRole('combobox', { name: 'Where it stands' }).click();
  await page.getByRole('option', { name: 'at Judge' }).click();
  await expect(grid.getByRole('row')).toHaveCount(2);
  await expect(grid.getByRole('link', { name: 'PT-6003' })).toBeVisible();
  await page.getByRole('button', { name: 'Show all' }).click();
  await page.getByRole('combobox', { name: 'As found' }).click();
  await page.getByRole('option', { name: 'outside' }).click();
  await expect(grid.getByRole('row', { name: /LT-1404/ }).first()).toBeVisible();
  await expect(page).toHaveURL(/found=outside/);
  await page.getByRole('button', { name: 'Keep this view' }).click();
  await page.getByLabel('Name of this view').fill('Found outside');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await page.getByRole('button', { name: 'Show all' }).click();
  await page.getByRole('link', { name: 'Found outside' }).click();
  await expect(page).toHaveURL(/found=outside/);
  await grid
    .getByRole('button', { name: 'Signed' })
    .or(grid.getByRole('button', { name: 'Opened' }))
    .first()
    .click();
  await expect(page).toHaveURL(/sort=openedAt&dir=asc|dir=asc&sort=openedAt|sort=openedAt/);
});

test('a shift hands over what is half done and what stands isolated, in manual or under pressure, by keyboard', async ({
  page,
  works,
}) => {
  await workAs(page, 'Technician B', '/jobs');
  const keys = new Keyboard(page);
  await page.getByRole('link', { name: 'Hand-over' }).focus();
  await keys.press('Enter');
  await expect(page.getByRole('heading', { name: 'Hand-over' })).toBeVisible();
  const now = (tag: string) =>
    page.getByRole('list', { name: 'Right now' }).getByRole('listitem', { name: tag, exact: true });
  await expect(now('PT-2301')).toContainText(/Valves half turned.* is still .*since .*, Technician/);
  await expect(now('PT-4410')).toContainText(/Isolated\s*shut off from its process and vented/);
  await expect(now('PT-6003')).toContainText(/Test gear connected.* is on the line/);
  await expect(now('PT-6003')).toContainText('Controller in manual');
  const half = page.getByRole('region', { name: 'Half done' });
  await expect(half.getByRole('row', { name: /PT-2215 .*As found, 6 of 9 points Technician/ })).toBeVisible();
  await expectAccessible(page);

  await now('PT-2301').getByRole('link').focus();
  await keys.press('Enter');
  await expect(page).toHaveURL(/\/jobs\/\d+\/isolate$/);
  await works.query(
    `update job set stage = 'cancelled', cancelled_by = opened_by, cancelled_at = now(), cancel_reason = 'for the test'
     where signed_at is null and cancelled_at is null`,
  );
  await page.goto('/jobs/hand-over');
  await expect(
    page.getByText('Nothing is isolated, bypassed, in manual or connected for a job'),
  ).toBeVisible();
  await expect(page.getByText('No job is open.')).toBeVisible();
});
