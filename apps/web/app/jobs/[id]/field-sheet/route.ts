import { loadJob } from '@barys/store/jobs';
import { listReferences } from '@barys/store/registers';
import { quantityWanted, rankReferences, type Side } from '@barys/store/runs';
import { z } from 'zod';
import { renderFieldSheet } from '@/pdf/field-sheet/render';
import { codeOf, originOf } from '@/server/codes';
import { database } from '@/server/database';
import { localDate } from '@/server/dates';
import { requireReader } from '@/server/person';
import { pdfResponse, problemResponse } from '@/server/problem';
import { routeId } from '@/server/routeId';

/** The field sheet of a job as PDF, A4 or (`?paper=letter`) Letter, for where no screen may go. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  try {
    await requireReader();
    const id = await routeId(params);
    const paper = z.enum(['a4', 'letter']).parse(new URL(request.url).searchParams.get('paper') ?? 'a4');
    const db = database();
    const [job, references] = await Promise.all([loadJob(db, id), listReferences(db)]);
    const { instrument } = job;
    const fitting = (side: Side) =>
      rankReferences(references, instrument, side, { today: localDate(new Date()) })
        .filter(({ unfit }) => unfit === null)
        .map(({ reference: { tag, name } }) => [tag, name].filter((part) => part !== '').join(' '))
        .join(', ') || 'none fits alone';
    const code = await codeOf(`${originOf(request)}/jobs/${id}`);
    const pdf = await renderFieldSheet({
      job,
      standards: fitting('input'),
      meters: quantityWanted(instrument, 'output') === null ? null : fitting('output'),
      code,
      paper: paper === 'a4' ? 'A4' : 'LETTER',
    });
    return pdfResponse(pdf, `field-sheet-${job.tag}-${job.id}.pdf`);
  } catch (error) {
    return problemResponse(error);
  }
}
