import { openDatabase, type Database } from '@barys/store/db';

// Kept on the global object, so that development reloads do not open a pool each.
const kept = globalThis as typeof globalThis & { barysDatabase?: Database };

/** The pool of this process. */
export function database(): Database {
  const url = process.env['DATABASE_URL'];
  if (url === undefined) throw new Error('DATABASE_URL is not set; start Barys with "npm start".');
  return (kept.barysDatabase ??= openDatabase(url));
}
