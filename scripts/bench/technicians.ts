import type { Database } from '@barys/store/db';
import { signInToDemo } from '@barys/store/people';
import { query } from '../lib/cluster';

/** The cookies of so many technicians who are signed in: how fast somebody may enter is counted by person. */
export async function technicians(db: Database, adminUrl: string, count: number): Promise<string[]> {
  const people = await query<{ id: string }>(
    adminUrl,
    `insert into person (name, role, is_active)
     select 'Bench ' || gen_random_uuid(), 'technician', true from generate_series(1, ${count}) returning id`,
  );
  const now = { at: new Date(), today: '2026-01-01' };
  return Promise.all(
    people.map(async ({ id }) => `barys-session=${await signInToDemo(db, now, Number(id))}`),
  );
}
