import type { MadeWith } from '@barys/store/runs';
import { describe, expect, it } from 'vitest';
import { TEST_CONFIGURATION, TEST_STANDARD, TEST_TOLERANCE } from '@/test/configuration';
import { figuresFor } from '@/ui/figures';
import { overRange, slipQuestion } from './slips';
import type { Entry } from './types';

const POINTS: MadeWith['points'] = [
  { position: 1, cycle: 1, direction: 'up', nominalPercent: 0, nominalApplied: 120, standard: 'first' },
  { position: 2, cycle: 1, direction: 'up', nominalPercent: 50, nominalApplied: 370, standard: 'first' },
];
const MADE_WITH = {
  configuration: TEST_CONFIGURATION,
  points: POINTS,
  head: 0,
  columns: [],
  tolerance: TEST_TOLERANCE,
  secondIndication: '',
  secondScale: null,
  pressureReference: TEST_STANDARD,
  secondReference: null,
} as unknown as MadeWith;

const entries = new Map<number, Entry>([
  [
    1,
    {
      position: 1,
      appliedText: '120',
      applied: 120,
      outputText: '4.01',
      output: 4.01,
      more: {},
      isSaved: true,
    },
  ],
]);
const figures = figuresFor(TEST_CONFIGURATION);
const ask = (output: number, made = MADE_WITH) =>
  slipQuestion(
    made,
    POINTS[1] as MadeWith['points'][number],
    { column: 'output', applied: 370, value: output, text: String(output) },
    entries,
    figures,
  );

describe('a reading that looks like a slip', () => {
  it('is asked about in words, with what is expected', () => {
    expect(ask(120.4)).toBe(
      '120.4: a digit too many, or a decimal sign moved? Expected is about 12.000. Enter again takes it as it is.',
    );
    expect(ask(4.01)).toContain('the figure of the point before?');
    expect(ask(12.04)).toBeNull();
  });

  it('is looked at where the instrument is, not where the standard is', () => {
    // A head of 250 mbar makes 20 mA of what the standard shows as 370.
    expect(ask(20, { ...MADE_WITH, head: 250 })).toBeNull();
  });
});

describe('a digital value or a second indication', () => {
  const typed = (column: 'digital' | 'second', text: string, made: Partial<MadeWith>) =>
    slipQuestion(
      { ...MADE_WITH, columns: [column], ...made },
      POINTS[1] as MadeWith['points'][number],
      { column, applied: 370, value: Number(text), text },
      new Map(),
      figures,
    );

  it('is asked about against its own scale', () => {
    expect(typed('digital', '370.2', {})).toBeNull();
    expect(typed('digital', '37.02', {})).toContain('a decimal sign moved? Or');
    expect(typed('digital', '-370.2', {})).toContain('leads or lines reversed?');
    const secondScale = { unit: 'm', low: 0, high: 5, percentOfSpan: 1 };
    expect(typed('second', '2.51', { secondScale })).toBeNull();
    expect(typed('second', '50', { secondScale })).toContain('in per cent?');
  });

  it('of unknown scale is taken as it is', () => {
    expect(typed('second', '999', { secondIndication: 'panel meter' })).toBeNull();
  });
});

describe('a pressure beyond the standard', () => {
  const at = (applied: number) => overRange(MADE_WITH, POINTS[1] as MadeWith['points'][number], applied);
  it('stops the entry and names the standard', () => {
    expect(at(1000)).toBeNull();
    expect(at(1000.1)).toContain('Stop: PC-1 is over-ranged. It reaches from 0 to 1000 mbar.');
    expect(at(-0.1)).toContain('over-ranged');
  });
});
