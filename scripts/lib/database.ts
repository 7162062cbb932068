/** Brings a database to the schema of this code, with the demo works in it if it is new and wanted. */
import { plantDemo } from '@barys/demo';
import { migrate, NewerDatabaseError } from '@barys/store/migrate';
import { Failure } from './failure';

/**
 * @param adminUrl a role that may create tables and roles
 * @param plants whether a new database gets the demo; one without asks for its first administrator
 */
export async function prepareDatabase(adminUrl: string, plants: boolean): Promise<void> {
  try {
    const applied = await migrate(adminUrl);
    if (applied.length > 0) console.log(`Brought the database up to date: ${applied.join(', ')}.`);
  } catch (error) {
    if (error instanceof NewerDatabaseError) throw new Failure(error.message);
    const { code } = error as { code?: string };
    if (code === 'ECONNREFUSED' || code === '28P01' || code === '3D000')
      throw new Failure(`The database of DATABASE_URL cannot be used: ${(error as Error).message || code}.`);
    throw error;
  }
  if (plants && (await plantDemo(adminUrl, new Date())))
    console.log('Planted the demo: Marrowfen Sugar Works, an invented factory.');
}
