import { expect, it } from 'vitest';
import { decadesOf } from './decades';

it.each([
  [0.001, 0.01, '+1.000'],
  [1, 1.25, '+0.097'],
  [1, 0.8, '\u22120.097'],
  [0, 1, ''],
  [1, -1, ''],
])('%s read as %s is %s decades off', (applied, output, decades) => {
  expect(decadesOf(applied, output)).toBe(decades);
});
