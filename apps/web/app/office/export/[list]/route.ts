import { StoreError } from '@barys/store/db';
import { toCsv } from '@barys/store/imports';
import { LISTS, type ListName } from '@/places/office/exports/lists';
import { csvResponse } from '@/server/csv';
import { database } from '@/server/database';
import { noteExport } from '@/server/exported';
import { requireReader } from '@/server/person';
import { problemResponse } from '@/server/problem';

/** One of the lists, whole, as CSV. */
export async function GET(
  _request: Request,
  { params }: { params: Promise<{ list: string }> },
): Promise<Response> {
  try {
    const reader = await requireReader();
    const { list } = await params;
    if (!Object.hasOwn(LISTS, list)) throw new StoreError({ code: 'no-such', what: 'list', name: list });
    await noteExport(reader, `list of ${list}`);
    const { header, rows } = await LISTS[list as ListName](database());
    return csvResponse(toCsv(header, rows), `${list}.csv`);
  } catch (error) {
    return problemResponse(error);
  }
}
