import { trailEntries, trailQuerySchema } from '@barys/store/db';
import { toCsv } from '@barys/store/imports';
import { csvResponse } from '@/server/csv';
import { database } from '@/server/database';
import { noteExport } from '@/server/exported';
import { requireReader } from '@/server/person';
import { problemResponse } from '@/server/problem';

const MOST = 100_000;

/** The trail as it is filtered, the newest first. */
export async function GET(request: Request): Promise<Response> {
  try {
    const reader = await requireReader();
    await noteExport(reader, 'audit trail');
    const query = trailQuerySchema.parse(Object.fromEntries(new URL(request.url).searchParams));
    const entries = await trailEntries(database(), query, MOST);
    const rows = entries.map(({ id, at, person, act, subjectKind, subjectId, subject, detail }) => [
      id,
      at.toISOString(),
      person,
      act,
      subjectKind,
      subjectId,
      subject,
      JSON.stringify(detail),
    ]);
    return csvResponse(
      toCsv(['No', 'When', 'Who', 'Act', 'On', 'Number', 'Name', 'Detail'], rows),
      'trail.csv',
    );
  } catch (error) {
    return problemResponse(error);
  }
}
