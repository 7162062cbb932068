import { expect, it } from 'vitest';
import { StoreError, type Refusal } from './errors';

const REFUSALS: readonly Refusal[] = [
  { code: 'no-such', what: 'instrument', name: 'PT-0' },
  { code: 'not-allowed', person: 'Auditor', role: 'auditor' },
  { code: 'unknown-person' },
  { code: 'wrong-stage', stage: 'judge', wanted: 'adjust' },
  { code: 'job-already-open', tag: 'PT-1', jobId: 2101 },
  { code: 'run-incomplete', missing: 3 },
  { code: 'reading-exists', output: '4.010', by: 'Technician A' },
  { code: 'no-such-point', position: 10 },
  { code: 'nothing-adjusted' },
  { code: 'already-adjusted' },
  { code: 'reason-needed', why: 'a check was left out' },
  { code: 'reference-unfit', tag: 'DW-01', why: 'it does not cover the points' },
  { code: 'reference-reason-needed', tag: 'DW-01', why: 'it has no certificate' },
  { code: 'range-unfit', why: 'The span is smaller than the least span.' },
  { code: 'not-automatic', why: 'Its output is not a current that a meter reads.' },
  { code: 'loop-fixed', milliamp: 4 },
  { code: 'not-writable', why: 'Its output is not a current.' },
  { code: 'bench-busy', bench: 'Bench A' },
  { code: 'not-walkable', why: 'The instrument is retired.' },
  { code: 'taken', what: 'instrument', name: 'PT-1' },
  { code: 'changed-meanwhile', what: 'PT-1' },
  { code: 'as-found-only', procedure: 'As found only' },
  { code: 'not-first' },
  { code: 'last-administrator' },
  { code: 'wrong-password' },
  { code: 'too-many-tries', seconds: 15 },
  { code: 'not-a-demo' },
  { code: 'file-unreadable', why: 'it has no rows' },
  { code: 'rows-bad', count: 3 },
];

it.each(REFUSALS.map((refusal) => [refusal.code, refusal] as const))(
  'the refusal "%s" is a sentence that names its facts',
  (_code, refusal) => {
    const { message } = new StoreError(refusal);
    expect(message).toMatch(/^[A-Z].*\.$/);
    for (const [name, fact] of Object.entries(refusal))
      if (name !== 'code') expect(message).toContain(String(fact));
  },
);

it('one missing point is said in the singular', () => {
  expect(new StoreError({ code: 'run-incomplete', missing: 1 }).message).toContain('1 point has no reading');
});
