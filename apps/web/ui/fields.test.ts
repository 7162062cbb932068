import { describe, expect, it } from 'vitest';
import { addressOf } from './addressOf';
import { readNumber } from './readNumber';

describe('a typed number', () => {
  it.each([
    ['12,02', 12.02, null],
    [' -5 ', -5, null],
    ['', null, null],
    ['  ', null, null],
  ])('"%s" is read', (text, value, error) => {
    expect(readNumber(text)).toEqual({ value, error });
  });

  it('that is none says what would be right', () => {
    expect(readNumber('1.2.3').error).toContain('more than one decimal sign');
    expect(readNumber('twelve').error).toContain('is not a number');
    expect(readNumber('1.2.3').value).toBeNull();
  });
});

describe('fields in the address', () => {
  const usual = { value: '25', unit: 'kPa' };
  it('come back, and where they are missing or odd the usual ones stand', () => {
    expect(addressOf(usual, { value: '37.4' })).toEqual({ value: '37.4', unit: 'kPa' });
    expect(addressOf(usual, { value: ['1', '2'], unit: 'x'.repeat(6001) })).toEqual(usual);
    expect(addressOf(usual, { stranger: '1' })).toEqual(usual);
  });
});
