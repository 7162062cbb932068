import { exportEverything } from '@barys/store/exports';
import { log } from '@/server/answerTo';
import { database } from '@/server/database';
import { noteExport } from '@/server/exported';
import { requireReader } from '@/server/person';
import { problemResponse } from '@/server/problem';

/** Everything as JSON, as docs/export.md describes it; written as it is read, so that its size does not matter. */
export async function GET(): Promise<Response> {
  try {
    const reader = await requireReader();
    await noteExport(reader, 'everything as JSON');
    const pieces = exportEverything(database(), new Date());
    const encoder = new TextEncoder();
    const body = new ReadableStream<Uint8Array>({
      async pull(controller) {
        try {
          const piece: IteratorResult<string, unknown> = await pieces.next();
          if (piece.done === true) controller.close();
          else controller.enqueue(encoder.encode(piece.value));
        } catch (error) {
          log.error({ err: error }, 'an export failed');
          controller.error(error);
        }
      },
      // Nobody listens any more.
      async cancel() {
        await pieces.return(undefined);
      },
    });
    return new Response(body, {
      headers: {
        'content-type': 'application/json',
        'content-disposition': 'attachment; filename="barys-export.json"',
        'cache-control': 'private, no-store',
      },
    });
  } catch (error) {
    return problemResponse(error);
  }
}
