/** The installation itself. */
import type { Queryable } from './database';

export interface Site {
  readonly siteName: string;
  readonly isDemo: boolean;
}

export async function addSite(tx: Queryable, site: Site): Promise<void> {
  await tx.query('insert into installation (site_name, is_demo) values ($1, $2)', [
    site.siteName,
    site.isDemo,
  ]);
}

/** The installation, or null before anything was planted. */
export async function findSite(db: Queryable): Promise<Site | null> {
  const [site] = await db.query<Site>(
    'select site_name as "siteName", is_demo as "isDemo" from installation',
  );
  return site ?? null;
}
