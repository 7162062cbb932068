import { isOwnWork, type JobFile } from '@barys/store/jobs';
import { hasPassword } from '@barys/store/people';
import { ReviewForm } from '../ReviewForm';
import { database } from '@/server/database';
import { actingPerson } from '@/server/person';
import { Sheet } from '@/ui/Sheet';

/** The second person’s word, or why whoever looks has none. */
export async function Review({ job }: { job: JobFile }) {
  const person = await actingPerson();
  if (person === null) return null;
  const isReviewer = ['reviewer', 'technician', 'administrator'].includes(person.role);
  const isOwn = await isOwnWork(database(), person.id, job.id);
  return (
    <Sheet title="Review" sx={{ gridColumn: '1 / -1' }}>
      <ReviewForm
        job={job.id}
        name={person.name}
        signedBy={job.signedBy ?? ''}
        why={
          !isReviewer
            ? `It waits for a second person; the role ${person.role} does not review.`
            : isOwn
              ? 'It waits for a second person: you had a hand in this job.'
              : null
        }
        hasPassword={await hasPassword(database(), person.id)}
      />
    </Sheet>
  );
}
