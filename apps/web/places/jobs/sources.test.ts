import type { Reading } from '@barys/store/runs';
import { describe, expect, it } from 'vitest';
import { linkWords, rawWords } from './sources';

const source: Reading['source'] = {
  link: 'Bench A',
  reference: 'Controller',
  output: 'Loop meter',
  digital: null,
  raw: { applied: '1.5e0 bar', output: '8.0e0 mA', digital: '' },
};
const readings = (...of: (Reading['source'] | null)[]) =>
  of.map((one, index) => ({ position: index + 1, source: one })) as Reading[];

describe('where readings come from', () => {
  it('is said by link and devices, with those that were typed beside them', () => {
    expect(linkWords({ readings: readings(source, null, source) })).toEqual([
      'Read over a link, Bench A (Controller, Loop meter): points 1, 3.',
      'Typed: point 2.',
    ]);
    expect(linkWords({ readings: readings(source, source) })).toHaveLength(1);
    expect(linkWords({ readings: readings({ ...source, digital: 'Transmitter' }, source) })).toEqual([
      'Read over a link, Bench A (Controller, Loop meter, Transmitter): point 1.',
      'Read over a link, Bench A (Controller, Loop meter): point 2.',
    ]);
  });

  it('is not spoken of where all was typed', () => {
    expect(linkWords({ readings: readings(null, null) })).toEqual([]);
    expect(linkWords({ readings: [] })).toEqual([]);
    expect(rawWords({ source: null })).toBe('');
  });

  it('keeps what came over the wire', () => {
    expect(rawWords({ source })).toBe('1.5e0 bar, 8.0e0 mA');
  });
});
