import { StoreError } from '@barys/store/db';
import { loadJob } from '@barys/store/jobs';
import { renderJobLabel } from '@/pdf/field-sheet/render';
import { codeOf, originOf } from '@/server/codes';
import { database } from '@/server/database';
import { requireReader } from '@/server/person';
import { pdfResponse, problemResponse } from '@/server/problem';
import { routeId } from '@/server/routeId';

/** The label that a signed job leaves on its instrument, as PDF. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  try {
    await requireReader();
    const id = await routeId(params);
    const job = await loadJob(database(), id);
    if (job.signedAt === null || job.runs.length === 0)
      throw new StoreError({ code: 'wrong-stage', stage: job.stage, wanted: 'a signed job' });
    const pdf = await renderJobLabel({ job, code: await codeOf(`${originOf(request)}/jobs/${id}/record`) });
    return pdfResponse(pdf, `label-${job.tag}-${job.id}.pdf`);
  } catch (error) {
    return problemResponse(error);
  }
}
