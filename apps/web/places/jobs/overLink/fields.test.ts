import type { ReadSetup } from '@barys/core/port';
import { instrumentActSchema } from '@barys/store/benches';
import { expect, it } from 'vitest';
import { ACTS, actOfFields, beforeAndAfter, WRITE_FIELDS } from './fields';

const READ: ReadSetup = {
  tag: 'PT-1',
  serial: '000007',
  unit: 'kPa',
  lrv: 0,
  urv: 250,
  dampingS: 0.5,
  transfer: 'linear',
  isProtected: false,
  value: 0.52,
  milliamp: 4.033,
  isFixed: false,
  temperaturesC: [],
  volts: null,
};
const FILLED = { ...WRITE_FIELDS, measured: '4.012', seconds: '2', lrv: '0', urv: '4', unit: 'bar' };

it('each act that can be chosen is one that the server takes', () => {
  const kinds = ACTS.map(([act]) => instrumentActSchema.parse(actOfFields({ ...FILLED, act })).kind);
  expect(kinds).toEqual([
    'zero trim',
    'fixed current',
    'output trim',
    'fixed current',
    'output trim',
    'fixed current',
    'damping',
    'range',
    'unit',
    'transfer function',
  ]);
  expect(actOfFields({ ...FILLED, act: 'trim 20' })).toEqual({
    kind: 'output trim',
    at: 20,
    measured: 4.012,
  });
});

it('says before and after of each, and nothing as long as a figure is missing', () => {
  const both = (act: string, more = {}) =>
    beforeAndAfter(actOfFields({ ...FILLED, act, ...more }), READ)?.join(' > ') ?? null;
  expect(both('zero trim')).toBe('0.520 kPa > 0 kPa');
  expect(both('fix 4')).toBe('following the pressure, 4.033 mA > fixed at 4 mA');
  expect(both('let go')).toContain('> following the pressure');
  expect(both('trim 4')).toBe('4.012 mA at the meter > 4 mA');
  expect(both('trim 4', { measured: '' })).toBeNull();
  expect(both('damping')).toBe('0.5 s > 2 s');
  expect(both('damping', { seconds: 'x' })).toBeNull();
  expect(both('range')).toBe('0 to 250 kPa > 0 to 4 bar');
  expect(both('range', { urv: '' })).toBeNull();
  expect(both('unit')).toBe('kPa > bar');
  expect(both('transfer function')).toBe('linear > linear');
});
