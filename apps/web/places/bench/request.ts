import { listBenches, requestById } from '@barys/store/benches';
import { z } from 'zod';
import { database } from '@/server/database';
import { requireReader } from '@/server/person';
import { problemResponse } from '@/server/problem';
import type { SeenRequest } from './useRequest';

const requestNumber = z.coerce.number().int().positive();

/** What there is to see of a request, and whether anybody is there to do it. */
export async function requestSeen(id: string): Promise<Response> {
  try {
    await requireReader();
    const db = database();
    const found = await requestById(db, requestNumber.parse(id), new Date());
    if (found === null) {
      // After a crash of the database nobody knows of it: nobody needs to wait for it either.
      const lost: SeenRequest = { bench: '', isThere: true, answer: null, isLost: true };
      return Response.json(lost, { headers: { 'cache-control': 'no-store, no-transform' } });
    }
    const { bench, answer, isLost } = found;
    const benches = await listBenches(db, new Date());
    const seen: SeenRequest = {
      bench: bench.name,
      isThere: benches.find((one) => one.id === bench.id)?.isThere ?? false,
      answer,
      isLost,
    };
    return Response.json(seen, { headers: { 'cache-control': 'no-store, no-transform' } });
  } catch (error) {
    return problemResponse(error);
  }
}
