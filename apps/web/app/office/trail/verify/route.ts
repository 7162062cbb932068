import { verifyTrail } from '@barys/store/db';
import { log } from '@/server/answerTo';
import { database } from '@/server/database';
import { requireReader } from '@/server/person';
import { problemResponse } from '@/server/problem';
import { notNow } from '@/server/problem-details';
import { sealFolder, sealNow } from '@/server/sealer';
import type { VerifyLine } from '@/places/office/trail/verifyLine';

/** One at a time: it reads every record. */
let isRunning = false;

/** Compares records, trail and seals, telling line by line how far it is; it stops when nobody listens any more. */
export async function POST(request: Request): Promise<Response> {
  try {
    await requireReader();
    if (isRunning) return notNow('Somebody is checking the trail just now. Try again when that is done.', 30);
    isRunning = true;
    await sealNow();
    const encoder = new TextEncoder();
    const { signal } = request;
    const body = new ReadableStream<Uint8Array>({
      async start(controller) {
        const say = (line: VerifyLine) => {
          signal.throwIfAborted();
          controller.enqueue(encoder.encode(`${JSON.stringify(line)}\n`));
        };
        try {
          const folder = sealFolder();
          const found = await database().transaction(async (tx) => {
            await tx.query('set transaction isolation level repeatable read read only');
            return verifyTrail(tx, { keys: folder.trustedKeys(), anchors: folder.anchors() }, { tell: say });
          });
          say({ found });
        } catch (error) {
          if (!signal.aborted) {
            log.error({ err: error }, 'the trail could not be verified');
            say({ error: 'The server could not finish this check. Try again.' });
          }
        } finally {
          isRunning = false;
          if (!signal.aborted) controller.close();
        }
      },
    });
    return new Response(body, {
      headers: { 'content-type': 'application/x-ndjson', 'cache-control': 'no-store' },
    });
  } catch (error) {
    return problemResponse(error);
  }
}
