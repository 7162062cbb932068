import { closedJobs, openJobs, toCsv } from '@barys/store';
import { csvResponse } from '@/server/csv';
import { database } from '@/server/database';
import { requireReader } from '@/server/person';
import { problemResponse } from '@/server/problem';

const MOST = 100_000;
const HEADER = [
  'Job',
  'Tag',
  'Service',
  'Area',
  'Why',
  'Stage',
  'As found',
  'As left',
  'Opened by',
  'Opened',
  'Signed by',
  'Signed',
  'Remark',
];

/** Jobs, the open ones first. */
export async function GET(): Promise<Response> {
  try {
    await requireReader();
    const db = database();
    const jobs = [...(await openJobs(db, MOST)), ...(await closedJobs(db, MOST))];
    const rows = jobs.map((job) => [
      job.id,
      job.tag,
      job.service,
      job.area,
      job.reason,
      job.stage,
      job.asFoundVerdict,
      job.asLeftVerdict,
      job.openedBy,
      job.openedAt.toISOString(),
      job.signedBy,
      job.signedAt?.toISOString(),
      job.remark,
    ]);
    return csvResponse(toCsv(HEADER, rows), 'jobs.csv');
  } catch (error) {
    return problemResponse(error);
  }
}
