import { TRAINING_ROLES } from '@barys/store/people';
import { everybodysProgress, ownProgress } from '@barys/store/practice';
import Stack from '@mui/material/Stack';
import { FreeBench } from '@/places/practice/FreeBench';
import { FreeAttempts, LessonList, Trainees } from '@/places/practice/LessonList';
import { database } from '@/server/database';
import { actingPerson, currentActor } from '@/server/person';
import { PageHead } from '@/ui/PageHead';

export const metadata = { title: 'Practice' };

export default async function PracticePage() {
  const actor = await currentActor();
  const person = await actingPerson();
  const own = await ownProgress(database(), actor.personId);
  const isTrainer = person !== null && TRAINING_ROLES.includes(person.role);
  return (
    <>
      <PageHead
        title="Practice"
        about="A simulated bench with hidden faults. What is done here is no record of anything."
      />
      <Stack sx={{ gap: 1.5 }}>
        <LessonList own={own} />
        <FreeBench />
        <FreeAttempts own={own} />
        {isTrainer && <Trainees all={await everybodysProgress(database(), actor)} />}
      </Stack>
    </>
  );
}
