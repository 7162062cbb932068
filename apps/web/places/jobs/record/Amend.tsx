import type { Amendment, JobFile } from '@barys/store/jobs';
import { hasPassword } from '@barys/store/people';
import Box from '@mui/material/Box';
import { AmendForm } from '../AmendForm';
import { amendablesOf } from '../amendables';
import { AmendmentReview } from '../AmendmentReview';
import { database } from '@/server/database';
import { actingPerson } from '@/server/person';

/** Amendments that wait for a second person, and the form for one more. */
export async function Amend({ job, amendments }: { job: JobFile; amendments: readonly Amendment[] }) {
  const person = await actingPerson();
  const has = person !== null && (await hasPassword(database(), person.id));
  return (
    <>
      {amendments
        .filter(({ state }) => state === 'waits')
        .map(({ id, what, beforeText, afterText, amendedBy }) => (
          <Box key={id} sx={{ mb: 2 }}>
            <AmendmentReview
              amendment={id}
              words={`${amendedBy} amends ${what}: “${beforeText === '' ? 'nothing' : beforeText}” to “${afterText}”. It counts when a second person agrees, who had no hand in the job.`}
              hasPassword={has}
            />
          </Box>
        ))}
      <AmendForm job={job.id} choices={amendablesOf(job, amendments)} hasPassword={has} />
    </>
  );
}
