import { checkImport, importChoiceSchema, takeImport, type Checked } from '@barys/store/imports';
import { requireAdministrator } from '@barys/store/people';
import { z } from 'zod';
import type { Found, Line } from '@/places/office/imports/choice';
import { answerTo, log } from '@/server/answerTo';
import { database } from '@/server/database';
import { currentActor } from '@/server/person';
import { problemResponse } from '@/server/problem';
import { routeId } from '@/server/routeId';

const SHOWN_PROBLEMS = 200;

const requestSchema = importChoiceSchema.extend({ wanted: z.enum(['check', 'good rows', 'all or none']) });

const toFound = ({ good, bad, known, questions }: Checked, isTaken: boolean): Found => ({
  good: good.length,
  known: known.length,
  bad: bad.length,
  problems: bad.slice(0, SHOWN_PROBLEMS),
  questions,
  isTaken,
});

/** Checks a file or takes it over, telling line by line how far it is; it stops when nobody listens any more. */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  try {
    const id = await routeId(params);
    const { wanted, ...choice } = requestSchema.parse(await request.json());
    const actor = await currentActor();
    const db = database();
    // Checking reads the whole file over and over: for those who may bring it in.
    await requireAdministrator(db, actor);
    const { signal } = request;
    const encoder = new TextEncoder();
    const body = new ReadableStream<Uint8Array>({
      async start(controller) {
        const say = (line: Line) => controller.enqueue(encoder.encode(`${JSON.stringify(line)}\n`));
        const watch = { onProgress: say, signal };
        try {
          if (wanted === 'check') {
            const { checked } = await checkImport(db, id, choice, actor.today, watch);
            say({ found: toFound(checked, false) });
          } else {
            const checked = await db.bulk((tx) => takeImport(tx, actor, id, choice, wanted, watch));
            say({ found: toFound(checked, true) });
          }
        } catch (error) {
          if (!signal.aborted) {
            const known = answerTo(error);
            if (known === null) log.error({ err: error }, 'an import failed');
            say({ error: known?.error ?? 'The server could not do this. Nothing was imported.' });
          }
        } finally {
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
