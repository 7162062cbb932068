/** Invented problems of any size, the same for the same seed: for tests and the bench. */
import type { PlanJob, PlanProblem } from '@barys/core/plan';

/** Numbers from 0 to 1 (the minimal standard generator of Park and Miller). */
function chance(seed: number): () => number {
  let state = (seed % 2_147_483_646) + 1;
  return () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
}

/** A week of five days: jobs in areas of about twenty, people for about three quarters of them, references for every kind. */
export function inventProblem(count: number, seed: number): PlanProblem {
  const random = chance(seed);
  const days = 5;
  const people = Math.max(2, Math.round(count / 28));
  const kinds = 4;
  const perKind = Math.max(1, Math.round(people * 0.6));
  const areas = Math.max(3, Math.round(count / 20));
  const references = Array.from({ length: kinds * perKind + people }, (_, index) => ({
    id: `R${index}`,
    lastDay: random() < 0.1 ? Math.floor(random() * days) : days + 100,
  }));
  const meters = references.slice(kinds * perKind).map(({ id }) => id);
  const jobs = Array.from({ length: count }, (_, index): PlanJob => {
    const kind = Math.floor(random() * kinds);
    const area = Math.floor(random() * areas);
    const serving = references.slice(kind * perKind, (kind + 1) * perKind).map(({ id }) => id);
    const isShut = random() < 0.08;
    return {
      id: `J${index}`,
      minutes: 30 + 5 * Math.floor(random() * 22),
      area: `A${area}`,
      walk: Math.floor(random() * 100),
      group: random() < 0.1 ? `G${area}-${Math.floor(random() * 3)}` : null,
      days: isShut ? [Math.floor(random() * days)] : Array.from({ length: days }, (__, day) => day),
      weight: 1 + 3 * Math.floor(random() * 2) + random(),
      lateFrom: Math.floor(random() * 14) - 3,
      needs: random() < 0.15 ? [serving] : [serving, meters],
      fixedTo: null,
    };
  });
  return {
    days,
    jobs,
    people: Array.from({ length: people }, (_, index) => ({
      id: `P${index}`,
      minutes: Array.from({ length: days }, () => (random() < 0.08 ? 0 : 420)),
    })),
    references,
    walkMinutes: 5,
    permitMinutes: 10,
  };
}
