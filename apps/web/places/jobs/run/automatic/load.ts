import { listBenches, standingOf, whyNotAutomatic } from '@barys/store/benches';
import { StoreError } from '@barys/store/db';
import { runsOf } from '@barys/store/runs';
import { z } from 'zod';
import { database } from '@/server/database';
import { requireReader } from '@/server/person';
import { problemResponse } from '@/server/problem';
import { shownReading } from '../shownReading';
import type { Seen } from './seen';

const runNumber = z.coerce.number().int().positive();

/** What there is to see of a run that goes by itself, or could. */
export async function automaticSeen(id: string): Promise<Response> {
  try {
    await requireReader();
    const runId = runNumber.parse(id);
    const [benches, standing, runs] = await Promise.all([
      listBenches(database(), new Date()),
      standingOf(database(), runId),
      runsOf(database(), [runId]),
    ]);
    const run = runs.get(runId);
    if (run === undefined) throw new StoreError({ code: 'no-such', what: 'run', name: runId });
    const seen: Seen = {
      // While it goes, the others are of no interest.
      benches: standing === null ? benches : benches.filter(({ id: one }) => one === standing.bench.id),
      automatic: standing === null ? null : { ...standing, state: standing.state },
      whyNot: whyNotAutomatic(run.madeWith),
      readings: run.readings.filter(({ source }) => source !== null).map(shownReading),
    };
    return Response.json(seen, { headers: { 'cache-control': 'no-store, no-transform' } });
  } catch (error) {
    return problemResponse(error);
  }
}
