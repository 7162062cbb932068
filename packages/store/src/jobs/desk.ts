/** Who is at a job. One browser enters at a time; another one sees whose it is, and takes it over with a word. */
import dayjs from 'dayjs';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import { requireWorker } from '../people/people';
import type { Actor } from '../people/actor';

/** A browser that has not been heard of for so long has gone. */
const GONE_MINUTES = 10;
/** One that looks again sooner than this is known to be there. */
const FRESH_MINUTES = 4;

export interface Desk {
  /** Whether it is the asking browser's. */
  readonly isMine: boolean;
  readonly by: string;
  readonly since: Date;
}

/**
 * Says that a browser is at a job, or asks whose it is. A free job, or one whose browser has gone, is taken without a
 * word; one that another browser is at only where that is said. A browser that only looks again writes nothing.
 * @throws StoreError `no-such`, `unknown-person`, `not-allowed`
 */
export async function sitDown(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  { desk, isTakingOver }: { readonly desk: string; readonly isTakingOver: boolean },
): Promise<Desk> {
  await requireWorker(tx, actor);
  const mine = await deskOf(tx, jobId);
  if (
    mine?.desk === desk &&
    mine.personId === actor.personId &&
    dayjs(actor.at).diff(mine.seenAt, 'minute') < FRESH_MINUTES
  )
    return { isMine: true, by: mine.by, since: mine.takenAt };
  const [job] = await tx.query('select from job where id = $1 for no key update', [jobId]);
  if (job === undefined) throw new StoreError({ code: 'no-such', what: 'job', name: jobId });
  const before = await deskOf(tx, jobId);
  const isFree = before === null || dayjs(actor.at).diff(before.seenAt, 'minute') >= GONE_MINUTES;
  const isSame = before?.desk === desk && before.personId === actor.personId;
  if (!isFree && !isSame && !isTakingOver) return { isMine: false, by: before.by, since: before.takenAt };
  await tx.query(
    `insert into desk (job_id, desk, person_id, taken_at, seen_at) values ($1, $2, $3, $4, $4)
     on conflict (job_id) do update set desk = $2, person_id = $3, seen_at = $4,
       taken_at = case when desk.desk = $2 and desk.person_id = $3 then desk.taken_at else $4 end`,
    [jobId, desk, actor.personId, actor.at],
  );
  if (!isFree && !isSame)
    await appendToTrail(tx, actor, {
      act: 'take job over',
      subject: { kind: 'job', id: jobId },
      detail: { from: before.by },
    });
  const now = await deskOf(tx, jobId);
  if (now === null) throw new Error('the desk just taken is not there');
  return { isMine: true, by: now.by, since: now.takenAt };
}

interface DeskRow {
  readonly desk: string;
  readonly personId: number;
  readonly by: string;
  readonly takenAt: Date;
  readonly seenAt: Date;
}

async function deskOf(db: Queryable, jobId: number): Promise<DeskRow | null> {
  const [row] = await db.query<DeskRow>(
    `select desk, person_id as "personId", person.name as by, taken_at as "takenAt", seen_at as "seenAt"
     from desk join person on person.id = person_id where job_id = $1`,
    [jobId],
  );
  return row ?? null;
}

/**
 * Refuses an entry of a browser that is not at the job, or that gives the number of somebody else's. Programs have no
 * desk; somebody who is signed in cannot leave it out.
 * @throws StoreError `desk-taken`, `desk-needed`
 */
export async function requireDesk(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  desk: string | null,
): Promise<void> {
  if (desk === null) {
    if (actor.via === 'session') throw new StoreError({ code: 'desk-needed' });
    return;
  }
  const now = await deskOf(tx, jobId);
  if (now !== null && (now.desk !== desk || now.personId !== actor.personId))
    throw new StoreError({ code: 'desk-taken', by: now.by });
}
