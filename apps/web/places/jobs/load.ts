import { loadJob, type JobFile } from '@barys/store/jobs';
import { database } from '@/server/database';
import { orNotFound, pageId } from '@/server/orNotFound';

/** The job of an address, or the page that says there is none. */
export const loadJobOr404 = (text: string): Promise<JobFile> =>
  orNotFound(() => loadJob(database(), pageId(text)));
