import { sealOfJob } from '@barys/store/db';
import { amendmentsOfJob, loadJob } from '@barys/store/jobs';
import { findSite } from '@barys/store/people';
import { doubtsOfJob } from '@barys/store/registers';
import { z } from 'zod';
import { renderCertificate } from '@/pdf/certificate/render';
import { codeOf, originOf } from '@/server/codes';
import { database } from '@/server/database';
import { requireReader } from '@/server/person';
import { pdfResponse, problemResponse } from '@/server/problem';
import { problemDetails } from '@/server/problem-details';
import { routeId } from '@/server/routeId';

/** The certificate of a signed job as PDF, A4 or (`?paper=letter`) Letter. */
export async function GET(
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  try {
    await requireReader();
    const id = await routeId(params);
    const paper = z.enum(['a4', 'letter']).parse(new URL(request.url).searchParams.get('paper') ?? 'a4');
    const db = database();
    const [job, site, amendments, seal, doubts] = await Promise.all([
      loadJob(db, id),
      findSite(db),
      amendmentsOfJob(db, id),
      sealOfJob(db, id),
      doubtsOfJob(db, id),
    ]);
    if (job.runs.length === 0)
      return problemDetails({
        status: 409,
        title: 'No run',
        detail: `Job ${id} has no run, and so no certificate.`,
      });
    if (job.signedAt === null)
      return problemDetails({
        status: 409,
        title: 'Not signed',
        detail: `Job ${id} is not signed yet; only a signed job has a certificate.`,
      });
    const pdf = await renderCertificate({
      job,
      site,
      amendments,
      seal,
      doubts,
      code: await codeOf(`${originOf(request)}/jobs/${id}/record`),
      paper: paper === 'a4' ? 'A4' : 'LETTER',
    });
    return pdfResponse(pdf, `${job.tag}-${job.id}.pdf`);
  } catch (error) {
    return problemResponse(error);
  }
}
