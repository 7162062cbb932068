/** Keeps this process in the time zone of the site, which an administrator may change while it runs. */
import { isDatabaseAway } from '@barys/store/db';
import { findSite } from '@barys/store/people';
import { database } from './database';
import { logOf } from './log';
import { setZone } from './dates';

const log = logOf('barys-zone');
const EVERY_MS = 30_000;

/** Looks up where the site is. */
export async function readZone(): Promise<void> {
  const site = await findSite(database());
  if (site !== null) setZone(site.timeZone);
}

/** Looks it up at the start, and now and then for what another process has changed. */
export async function watchZone(): Promise<void> {
  const look = () =>
    readZone().catch((error: unknown) => {
      if (!isDatabaseAway(error)) log.error({ err: error }, 'the time zone could not be looked up');
    });
  await look();
  setInterval(() => void look(), EVERY_MS).unref();
}
