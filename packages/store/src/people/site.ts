/** The installation itself. */
import { z } from 'zod';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { requireAdministrator } from './people';
import type { Actor } from './actor';

/** Who reviews a signed job: somebody with no hand in it, anybody who may review, or nobody. */
export const REVIEWS = ['another person', 'anybody', 'none'] as const;
export type Review = (typeof REVIEWS)[number];

const line = z.string().trim().max(200, 'At most 200 characters, please.').default('');
const lines = z.string().trim().max(500, 'At most 500 characters, please.').default('');

/** Who calibrates and for whom, as a certificate names them (ISO/IEC 17025:2017, 7.8.2.1 b, c and e; from memory). */
export const letterheadSchema = z.object({
  laboratory: line,
  laboratoryAddress: lines,
  customer: line,
  customerAddress: lines,
});
export type Letterhead = z.infer<typeof letterheadSchema>;

/** What is kept of one; each part that was never entered is empty. */
export const letterheadOf = (kept: unknown): Letterhead => letterheadSchema.parse(kept);

export interface Site {
  readonly siteName: string;
  readonly isDemo: boolean;
  readonly review: Review;
  readonly letterhead: Letterhead;
  /** IANA name of the zone in which its days are cut. */
  readonly timeZone: string;
}

/** The zone of this machine, until somebody says where the site is. */
const ownZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone;

/** A name of the IANA time zone database that this machine knows. */
export const timeZoneSchema = z.string().refine(
  (name) => {
    try {
      return Intl.DateTimeFormat('en', { timeZone: name }).resolvedOptions().timeZone !== '';
    } catch {
      return false;
    }
  },
  { error: 'Choose a time zone from the list, such as Europe/Berlin.' },
);

export async function addSite(tx: Queryable, site: Pick<Site, 'siteName' | 'isDemo'>): Promise<void> {
  await tx.query('insert into installation (site_name, is_demo, time_zone) values ($1, $2, $3)', [
    site.siteName,
    site.isDemo,
    ownZone(),
  ]);
}

/** The installation, or null before anything was planted. */
export async function findSite(db: Queryable): Promise<Site | null> {
  const [site] = await db.query<Omit<Site, 'timeZone'> & { timeZone: string | null }>(
    `select site_name as "siteName", is_demo as "isDemo", review, letterhead, time_zone as "timeZone" from installation`,
  );
  return site === undefined
    ? null
    : {
        ...site,
        letterhead: letterheadOf(site.letterhead),
        timeZone: site.timeZone ?? ownZone(),
      };
}

/**
 * Sets who reviews a signed job.
 * @throws StoreError `unknown-person`, `not-allowed`
 */
export async function setReview(tx: Queryable, actor: Actor, review: Review): Promise<void> {
  await requireAdministrator(tx, actor);
  const before = (await findSite(tx))?.review;
  await tx.query('update installation set review = $1', [review]);
  await appendToTrail(tx, actor, {
    act: 'set review',
    subject: { kind: 'site', id: 1 },
    detail: { before, after: review },
  });
}

/**
 * Sets who is named at the head of certificates of jobs signed from now on.
 * @throws StoreError `unknown-person`, `not-allowed`
 */
export async function setLetterhead(tx: Queryable, actor: Actor, letterhead: Letterhead): Promise<void> {
  await requireAdministrator(tx, actor);
  const before = (await findSite(tx))?.letterhead;
  await tx.query('update installation set letterhead = $1', [letterhead]);
  await appendToTrail(tx, actor, {
    act: 'set letterhead',
    subject: { kind: 'site', id: 1 },
    detail: { before, after: letterhead },
  });
}

/**
 * Sets the zone in which the days of the site are cut: due dates, dates of work, what is due today.
 * @throws StoreError `unknown-person`, `not-allowed`; ZodError for a zone that there is not
 */
export async function setTimeZone(tx: Queryable, actor: Actor, timeZone: string): Promise<void> {
  await requireAdministrator(tx, actor);
  const before = (await findSite(tx))?.timeZone;
  await tx.query('update installation set time_zone = $1', [timeZoneSchema.parse(timeZone)]);
  await appendToTrail(tx, actor, {
    act: 'set time zone',
    subject: { kind: 'site', id: 1 },
    detail: { before, after: timeZone },
  });
}
