import { checkImport, importChoiceSchema, leftOutAsCsv, openImport } from '@barys/store/imports';
import { csvResponse } from '@/server/csv';
import { database } from '@/server/database';
import { localDate } from '@/server/dates';
import { requireReader } from '@/server/person';
import { problemOfBody } from '@/server/problem';
import { routeId } from '@/server/routeId';

/** The rows that are not good, with the reason, for `?choice=` as the page has it. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  try {
    await requireReader();
    const id = await routeId(params);
    const text = new URL(request.url).searchParams.get('choice');
    const db = database();
    const choice =
      text === null ? (await openImport(db, id)).choice : importChoiceSchema.parse(JSON.parse(text));
    const { file, header, checked } = await checkImport(db, id, choice, localDate(new Date()));
    return csvResponse(leftOutAsCsv(header, checked), `left-out-${file.name.replace(/\.\w+$/, '')}.csv`);
  } catch (error) {
    return problemOfBody(error);
  }
}
