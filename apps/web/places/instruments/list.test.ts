import { expect, it } from 'vitest';
import { columnsText, shownColumns } from './columns';
import { listAddress, readListAddress } from './listAddress';

it('the address of a list says only what differs from the usual one, and reads back as it was', () => {
  expect(listAddress(readListAddress({}))).toBe('');
  const view = readListAddress({
    q: 'pt 21',
    area: 'North & south',
    sort: 'service',
    dir: 'desc',
    page: '3',
  });
  expect(listAddress(view)).toBe('q=pt+21&area=North+%26+south&sort=service&dir=desc&page=3');
  expect(readListAddress(Object.fromEntries(new URLSearchParams(listAddress(view))))).toEqual(view);
});

it('an address that nobody would type shows the usual list', () => {
  const usual = readListAddress({});
  expect(
    readListAddress({ sort: 'tag; drop table', size: '9999', state: ['a', 'b'], columns: 'x'.repeat(400) }),
  ).toEqual(usual);
});

it('columns are chosen by name, the tag always among them', () => {
  expect(shownColumns('')).toContain('service');
  expect(shownColumns('')).not.toContain('serial');
  const chosen = shownColumns('serial.loop.nonsense');
  expect(chosen).toEqual(['tag', 'loop', 'serial']);
  expect(columnsText(chosen)).toBe('loop.serial');
});
