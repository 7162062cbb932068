import { inService } from '@barys/core/hookup';
import { beforeEach, describe, expect, it } from 'vitest';
import type { Instrument } from '../src/registers/instrument';
import { findInstrument } from '../src/registers/instruments';
import { keepMove } from '../src/jobs/valves';
import { loadJob } from '../src/jobs/file';
import { openJob, passAsked } from '../src/jobs/decide';
import { questionsAt, unanswered } from '../src/jobs/questions';
import { answersAt, closeOpenJobs, openWorks, TAG, turnValves, walkToConnect } from './works';

const { base, works } = await openWorks();
let jobId: number;

beforeEach(async () => {
  await closeOpenJobs(base.owner);
  jobId = await openJob(base.app, works.technician, TAG, 'due');
});

const pass = async (stage: 'brief' | 'authorise' | 'isolate' | 'return', more: object = {}) =>
  passAsked(base.app, works.technician, jobId, stage, {
    ...(await answersAt(base.app, jobId, stage)),
    ...more,
  });

const move = (valve: 'block' | 'bleed', to: 'open' | 'closed', more: object = {}) =>
  keepMove(base.app, works.technician, jobId, {
    stage: 'isolate',
    valve,
    to,
    isMadeAnyway: false,
    known: 0,
    ...more,
  });

describe('authorising', () => {
  it('is held by each question without an answer, and the answers stay', async () => {
    await pass('brief');
    const { given } = await answersAt(base.app, jobId, 'authorise');
    await expect(pass('authorise', { given: { ...given, permit: ' ' } })).rejects.toThrow(
      'Not answered yet: Permit to work',
    );
    await expect(pass('authorise', { given: { ...given, area: 'no idea' } })).rejects.toThrow(
      'Hazardous area',
    );
    await pass('authorise', { given: { ...given, permit: 'W-17' } });
    const record = (await loadJob(base.app, jobId)).passed.at(-1);
    expect(record?.answers[0]).toEqual({
      question: 'Permit to work: its number, or why none is needed',
      answer: 'W-17',
    });
    expect(record?.isSkip).toBe(false);
  });

  it('is passed over only with a reason, which the record keeps', async () => {
    await pass('brief');
    await pass('authorise', { given: {}, skipReason: 'spare on the bench, never in a process' });
    expect((await loadJob(base.app, jobId)).passed.at(-1)).toMatchObject({
      stage: 'authorise',
      isSkip: true,
      note: 'spare on the bench, never in a process',
    });
  });

  it('asks for protection by the hazards of the instrument, and more of a safety function', async () => {
    const plain = await findInstrument(base.app, { tag: TAG });
    const asked = (more: Partial<Instrument>) =>
      questionsAt('authorise', { ...plain, ...more }).map(({ key }) => key);
    expect(asked({})).toEqual(['permit', 'area', 'controller', 'bypass', 'eyes']);
    expect(asked({ hazards: ['steam, 130 °C'] })).toContain('heat');
    expect(asked({ hazards: ['toxic: carbon monoxide'] })).toContain('toxic');
    expect(asked({ hazards: ['hot alkaline juice'] })).toEqual(expect.arrayContaining(['heat', 'splash']));
    expect(asked({ hazards: ['oxygen'] })).toContain('oxygen');
    expect(asked({ hazards: ['hot water at 48 bar'] })).toContain('pressure');
    const [, , , bypass] = questionsAt('authorise', { ...plain, criticality: 'safety function' });
    expect(bypass?.text).toContain('who authorised it');
    const area = questionsAt('authorise', { ...plain, hazards: ['hazardous area'] })[1];
    expect(area?.options).not.toContain('Not a hazardous area');
  });
});

describe('a question', () => {
  it.each([
    ['tick', 'yes', true],
    ['tick', 'done', false],
    ['text', '  ', true],
    ['text', 'none', false],
    ['choice', 'perhaps', true],
    ['choice', 'a', false],
  ] as const)('of the kind %s with "%s" is open: %s', (kind, answer, isOpen) => {
    const question = { key: 'q', text: 'Q', kind, options: ['a'] };
    expect(unanswered([question], { q: answer })).toHaveLength(isOpen ? 1 : 0);
  });
});

describe('the valves', () => {
  beforeEach(async () => {
    await pass('brief');
    await pass('authorise');
  });

  it('must stand right before an instrument counts as isolated', async () => {
    await expect(pass('isolate')).rejects.toThrow('Block is still open. Bleed is still closed.');
    await move('block', 'closed');
    await expect(pass('isolate')).rejects.toThrow('Pressure is trapped on the high side');
    await move('bleed', 'open', { known: 1 });
    await pass('isolate');
    expect((await loadJob(base.app, jobId)).stage).toBe('connect');
  });

  it('are not moved into a fault unless that was done, and then the record says so', async () => {
    await expect(move('bleed', 'open')).rejects.toThrow('Bleed: not kept');
    await move('bleed', 'open', { isMadeAnyway: true });
    expect((await loadJob(base.app, jobId)).moves).toMatchObject([
      { valve: 'bleed', to: 'open', faults: ['process-open'], movedBy: 'Technician A', stage: 'isolate' },
    ]);
  });

  it('are moved once where two people tick the same move', async () => {
    await move('block', 'closed');
    await expect(move('bleed', 'open', { known: 0 })).rejects.toThrow('changed the valves in the meantime');
    // A move to where the valve stands is none.
    await move('block', 'closed', { known: 1 });
    expect((await loadJob(base.app, jobId)).moves).toHaveLength(1);
  });

  it('are moved by those who work on instruments, at their stage only, and never struck out', async () => {
    await expect(
      keepMove(base.app, works.auditor, jobId, {
        stage: 'isolate',
        valve: 'block',
        to: 'closed',
        isMadeAnyway: false,
        known: 0,
      }),
    ).rejects.toThrow('may not do this');
    await expect(move('block', 'closed', { stage: 'return' })).rejects.toThrow('belongs to return');
    await expect(move('equaliser' as 'block', 'closed')).rejects.toThrow('The valve equaliser');
    await move('block', 'closed');
    await expect(base.owner.query('delete from valve_move')).rejects.toThrow('only ever added to');
    await expect(base.app.query(`update valve_move set moved_to = 'open'`)).rejects.toThrow(
      'permission denied',
    );
  });

  it('bring a question of their own where a wet leg was lost', async () => {
    const wet = { ...(await findInstrument(base.app, { tag: TAG })), hookUp: 'wet-leg' as const };
    const keys = (isLegLost: boolean) => questionsAt('return', wet, { isLegLost }).map(({ key }) => key);
    expect(keys(false)).not.toContain('leg');
    expect(keys(true)).toContain('leg');
    expect(inService('wet-leg').isLegLost).toBe(false);
  });
});

it('a stage is passed over with its valves as they stand, and the return begins where they were left', async () => {
  await pass('brief');
  await pass('authorise');
  await pass('isolate', { given: {}, skipReason: 'not connected to any process' });
  expect((await loadJob(base.app, jobId)).moves).toEqual([]);
});

it('what the procedure asks at a stage is asked after the usual questions', async () => {
  const plain = await findInstrument(base.app, { tag: TAG });
  const { procedure } = plain;
  const questions = [{ stage: 'return' as const, text: 'Is the heat tracing on?' }];
  const asked = { ...plain, procedure: { ...procedure, content: { ...procedure.content, questions } } };
  expect(questionsAt('return', asked).at(-1)).toEqual({
    key: 'procedure-1',
    text: 'Is the heat tracing on?',
    kind: 'text',
  });
  expect(questionsAt('brief', asked)).toEqual([]);
});

it('a whole walk to the connection leaves four stages with who passed them', async () => {
  await walkToConnect(base.app, works.colleague, jobId);
  const { passed, moves } = await loadJob(base.app, jobId);
  expect(passed.map(({ stage, doneBy }) => `${stage} ${doneBy}`)).toEqual([
    'brief Technician B',
    'authorise Technician B',
    'isolate Technician B',
  ]);
  expect(moves).toHaveLength(2);
  await expect(turnValves(base.app, works.colleague, jobId, 'return')).rejects.toThrow('belongs to return');
});
