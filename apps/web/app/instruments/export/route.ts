import { toCsv } from '@barys/store/imports';
import { allInstruments } from '@barys/store/registers';
import { readListAddress } from '@/places/instruments/listAddress';
import { csvResponse } from '@/server/csv';
import { database } from '@/server/database';
import { localDate } from '@/server/dates';
import { noteExport } from '@/server/exported';
import { requireReader } from '@/server/person';
import { problemResponse } from '@/server/problem';

/** The list as it is filtered and ordered, whole, with headings that an import reads back. */
export async function GET(request: Request): Promise<Response> {
  try {
    const reader = await requireReader();
    await noteExport(reader, 'list of instruments');
    const view = readListAddress(Object.fromEntries(new URL(request.url).searchParams));
    const { header, rows } = await allInstruments(database(), view, localDate(new Date()));
    return csvResponse(toCsv(header, rows), 'instruments.csv');
  } catch (error) {
    return problemResponse(error);
  }
}
