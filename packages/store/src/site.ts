/** The installation itself. */
import { appendToTrail } from './audit';
import type { Queryable } from './database';
import { requireAdministrator, type Actor } from './people';

/** Who reviews a signed job: somebody with no hand in it, anybody who may review, or nobody. */
export const REVIEWS = ['another person', 'anybody', 'none'] as const;
export type Review = (typeof REVIEWS)[number];

export interface Site {
  readonly siteName: string;
  readonly isDemo: boolean;
  readonly review: Review;
}

export async function addSite(tx: Queryable, site: Omit<Site, 'review'>): Promise<void> {
  await tx.query('insert into installation (site_name, is_demo) values ($1, $2)', [
    site.siteName,
    site.isDemo,
  ]);
}

/** The installation, or null before anything was planted. */
export async function findSite(db: Queryable): Promise<Site | null> {
  const [site] = await db.query<Site>(
    'select site_name as "siteName", is_demo as "isDemo", review from installation',
  );
  return site ?? null;
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
