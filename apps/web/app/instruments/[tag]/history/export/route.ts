import { toCsv } from '@barys/store/imports';
import { historyOf } from '@barys/store/results';
import { unstable_rethrow } from 'next/navigation';
import { HISTORY_HEADER, historyRows } from '@/places/instruments/history/csv';
import { loadInstrument, type Params } from '@/places/instruments/load';
import { csvResponse } from '@/server/csv';
import { database } from '@/server/database';
import { noteExport } from '@/server/exported';
import { requireReader } from '@/server/person';
import { problemResponse } from '@/server/problem';

/** The history of an instrument, reading by reading. */
export async function GET(_request: Request, { params }: { params: Params }): Promise<Response> {
  try {
    const reader = await requireReader();
    const { id, tag } = await loadInstrument(params, '/history/export');
    await noteExport(reader, `history of ${tag}`);
    return csvResponse(
      toCsv(HISTORY_HEADER, historyRows(tag, await historyOf(database(), id))),
      `${tag} history.csv`,
    );
  } catch (error) {
    // A tag that is not there, or has become another one, is answered by the router.
    unstable_rethrow(error);
    return problemResponse(error);
  }
}
