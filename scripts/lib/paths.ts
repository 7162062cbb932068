import { fileURLToPath } from 'node:url';

/** The repository, with a slash at its end. */
export const ROOT = fileURLToPath(new URL('../..', import.meta.url));
export const WEB = `${ROOT}apps/web`;
/** The private folder of this installation: cluster, passwords, logs. */
export const HOME = process.env['BARYS_HOME'] ?? `${ROOT}.barys`;
/** Key and anchor file of the seals of the trail: outside the database, and not in its backups. */
export const SEALS = `${HOME}/seals`;
