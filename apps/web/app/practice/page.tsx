import { everybodysProgress, ownProgress } from '@barys/store/practice';
import Stack from '@mui/material/Stack';
import { LessonList, Trainees } from '@/places/practice/LessonList';
import { database } from '@/server/database';
import { actingPerson, currentActor } from '@/server/person';
import { PageHead } from '@/ui/PageHead';

export const metadata = { title: 'Practice' };

/** Roles that see how others practise; the store asks again. */
const TRAINERS = ['planner', 'administrator'];

export default async function PracticePage() {
  const actor = await currentActor();
  const person = await actingPerson();
  const isTrainer = person !== null && TRAINERS.includes(person.role);
  return (
    <>
      <PageHead
        title="Practice"
        about="A simulated bench with hidden faults. What is done here is no record of anything."
      />
      <Stack sx={{ gap: 1.5 }}>
        <LessonList own={await ownProgress(database(), actor.personId)} />
        {isTrainer && <Trainees all={await everybodysProgress(database(), actor)} />}
      </Stack>
    </>
  );
}
