import { amendmentsOfJob, attachmentsOfJob, loadJob } from '@barys/store/jobs';
import { evaluateStoredRun } from '@barys/store/runs';
import { database } from '@/server/database';
import { requireReader } from '@/server/person';
import { problemResponse } from '@/server/problem';
import { routeId } from '@/server/routeId';

/** A job with all that is known of it, its runs with the copies they were made with and their figures. */
export async function GET(
  _request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  try {
    await requireReader();
    const id = await routeId(params);
    const db = database();
    const job = await loadJob(db, id);
    const [amendments, attachments] = await Promise.all([amendmentsOfJob(db, id), attachmentsOfJob(db, id)]);
    const runs = job.runs.map((run) => ({ ...run, evaluation: evaluateStoredRun(run) }));
    return Response.json(
      { ...job, runs, amendments, attachments },
      { headers: { 'cache-control': 'private, no-store' } },
    );
  } catch (error) {
    return problemResponse(error);
  }
}
