/** Attempts at the practice bench: one's own, and apart from all real work. */
import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import { exportEverything } from '../src/exports/everything';
import { addPerson } from '../src/people/people';
import { everybodysProgress, findAttempt, keepAttempt, ownProgress } from '../src/practice';
import { openWorks } from './works';

const { base, works } = await openWorks();
const { app } = base;
const { technician, colleague, auditor, administrator } = works;
const planner = {
  ...administrator,
  personId: await addPerson(base.owner, administrator, {
    name: 'Planner',
    role: 'planner',
    login: null,
    isActive: true,
  }),
};

const attempt = (points: number, more: object = {}) => ({
  clientKey: randomUUID(),
  lesson: 'zero and span',
  seed: 4711,
  record: [{ atS: 1, act: { do: 'stroke' } }],
  points,
  timeS: 300,
  ...more,
});

describe('an attempt', () => {
  it('is kept once, and one’s best and last stand at the lesson', async () => {
    const first = attempt(60);
    const id = await keepAttempt(app, technician, first);
    expect(await keepAttempt(app, technician, first)).toBe(id);
    await keepAttempt(app, technician, attempt(90));
    await keepAttempt(app, technician, attempt(75));
    await keepAttempt(app, colleague, attempt(40));
    expect(await ownProgress(app, technician.personId)).toMatchObject([
      { lesson: 'zero and span', attempts: 3, best: 90, last: 75, by: 'Technician A' },
    ]);
    // Whoever may do nothing else may practise.
    await keepAttempt(app, auditor, attempt(10));
  });

  it('is somebody’s own: another person’s key and another person’s attempt are refused', async () => {
    const mine = attempt(50);
    const id = await keepAttempt(app, technician, mine);
    await expect(keepAttempt(app, colleague, mine)).rejects.toThrow();
    expect((await findAttempt(app, technician, id)).record).toEqual(mine.record);
    await expect(findAttempt(app, colleague, id)).rejects.toMatchObject({ refusal: { code: 'not-allowed' } });
    expect((await findAttempt(app, planner, id)).by).toBe('Technician A');
    await expect(findAttempt(app, technician, 999_999)).rejects.toMatchObject({
      refusal: { code: 'no-such' },
    });
  });

  it('is seen by whoever trains, and by nobody else', async () => {
    const all = await everybodysProgress(app, planner);
    expect(new Set(all.map(({ by }) => by))).toEqual(new Set(['Technician A', 'Technician B', 'Auditor']));
    for (const actor of [technician, auditor])
      await expect(everybodysProgress(app, actor)).rejects.toMatchObject({
        refusal: { code: 'not-allowed' },
      });
  });

  it('is in no export and in no entry of the trail, and is never changed', async () => {
    let json = '';
    for await (const part of exportEverything(app, technician.at)) json += part;
    expect(json).not.toContain('practice_attempt');
    expect(json).not.toContain('zero and span');
    expect(await app.query(`select from audit_entry where detail::text like '%4711%'`)).toEqual([]);
    await expect(app.query('update practice_attempt set points = 100')).rejects.toThrow('permission denied');
    await expect(app.query('delete from practice_attempt')).rejects.toThrow('permission denied');
  });
});
