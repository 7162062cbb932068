'use client';
/** A lesson at the bench: what one was told, the bench, the run, what is wrong, and how it was done. */
import { CAUSES, isAdjusting, lessonOf, type Cause, type Lesson, type Score } from '@barys/rig/practice';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useRouter } from 'next/navigation';
import { useState, useTransition } from 'react';
import { Columns } from '@/ui/Columns';
import { Sheet } from '@/ui/Sheet';
import { useIsMounted } from '@/ui/useIsMounted';
import { finishAction } from '../actions';
import { PracticeAdvice } from './Advice';
import { BenchDrawing } from './BenchDrawing';
import { Result } from './Result';
import { RunPanel, type Point } from './RunPanel';
import { Communicator, ControllerPanel, GaugeKeys } from './Tools';
import { forgetBench, useBench } from './useBench';

/** A lesson by its id, since what it does cannot travel from the server to the browser. */
export function PracticeDesk({ lesson, seed }: { lesson: string; seed: number }) {
  const isMounted = useIsMounted();
  if (!isMounted)
    return <Typography sx={{ color: 'text.secondary' }}>The bench is being set up …</Typography>;
  return <Desk key={`${lesson} ${seed}`} lesson={lessonOf(lesson)} seed={seed} />;
}

/** What stands beside a lesson on the bench: it counts, and takes points where it should. */
function soFar(seconds: number, hints: number): string {
  const minutes = Math.floor(seconds / 60);
  const time = `${minutes} min ${Math.floor(seconds % 60)} s`;
  return hints === 0 ? time : `${time}, ${hints} ${hints === 1 ? 'hint' : 'hints'} (−${hints * 3})`;
}

function Desk({ lesson, seed }: { lesson: Lesson; seed: number }) {
  const { bench, clientKey, do: work, pass, stop } = useBench(lesson, seed);
  const [score, setScore] = useState<Score | null>(null);
  const [error, setError] = useState<string | null>(null);
  const [isPending, begin] = useTransition();
  const router = useRouter();
  const adjusted = bench.done.some(({ act }) => isAdjusting(act));
  const [isAsLeft, setIsAsLeft] = useState(() => bench.taken.some((one) => one.pass === 'as left'));
  const run = isAsLeft ? 'as left' : 'as found';
  const hints = bench.done.filter(({ act }) => act.do === 'hint').length;
  const onRead = (point: Point) => work({ do: 'read', ...point, pass: run });

  const finish = (causes: readonly Cause[]) => {
    stop();
    setError(null);
    work({ do: 'name', causes });
    begin(async () => {
      const said = await finishAction({ clientKey, lesson: lesson.id, seed, record: bench.done }).catch(
        () => ({
          error: 'Barys does not answer. What you did is kept in this browser: finish it again once it does.',
        }),
      );
      if ('score' in said) {
        forgetBench(lesson, seed);
        setScore(said.score);
      } else setError(said.error ?? 'It was not kept. Try again.');
    });
  };
  if (score !== null)
    return (
      <Result
        lesson={lesson}
        seed={seed}
        record={bench.done}
        score={score}
        onAgain={() =>
          router.push(`/practice/${encodeURIComponent(lesson.id)}?seed=${(seed % 999_983) + 17}`)
        }
      />
    );
  return (
    <Columns columns="1.9fr 1fr">
      <Stack sx={{ gap: 1.5 }}>
        <Sheet title="The bench" aside="Tab from hand to hand, ← → turn, Shift a tenth">
          <BenchDrawing bench={bench} onDo={work} />
          <Stack direction="row" sx={{ gap: 1, alignItems: 'center', flexWrap: 'wrap' }}>
            <Button onClick={() => pass(10)}>Wait 10 s</Button>
            <Button onClick={() => pass(60)}>Wait a minute</Button>
            <Typography variant="body2" sx={{ color: 'text.secondary' }}>
              {soFar(bench.timeS, hints)}
            </Typography>
          </Stack>
        </Sheet>
        {bench.world.source.kind === 'controller' && <ControllerPanel bench={bench} onDo={work} />}
        <Communicator bench={bench} onDo={work} />
        <GaugeKeys bench={bench} onDo={work} />
      </Stack>
      <Stack sx={{ gap: 1.5 }}>
        <Sheet title="What you were told">
          <Typography>{lesson.brief}</Typography>
          <Typography variant="body2" sx={{ color: 'text.secondary', mt: 0.5 }}>
            The limit is ±{lesson.limitPercent} % of span, adjust above {lesson.adjustAbovePercent} % of it.
            The reference ends at {lesson.referenceLimit} {lesson.unit}.
          </Typography>
          {lesson.hints.slice(0, hints).map((hint) => (
            <Typography key={hint} sx={{ mt: 1 }}>
              {hint}
            </Typography>
          ))}
          {hints < lesson.hints.length && (
            <Button onClick={() => work({ do: 'hint' })} sx={{ mt: 1 }}>
              Hint, −3
            </Button>
          )}
        </Sheet>
        <RunPanel
          bench={bench}
          pass={run}
          onRead={onRead}
          onAsLeft={adjusted && !isAsLeft ? () => setIsAsLeft(true) : null}
        />
        <PracticeAdvice bench={bench} />
        <Naming onFinish={finish} isPending={isPending} error={error} />
      </Stack>
    </Columns>
  );
}

/** What is wrong, and the end of the lesson. */
function Naming({
  onFinish,
  isPending,
  error,
}: {
  onFinish: (causes: readonly Cause[]) => void;
  isPending: boolean;
  error: string | null;
}) {
  const [causes, choose] = useState<readonly Cause[]>([]);
  return (
    <Sheet title="What is wrong">
      <Box role="group" aria-label="What is wrong">
        {(Object.keys(CAUSES) as Cause[]).map((cause) => (
          <FormControlLabel
            key={cause}
            sx={{ display: 'flex' }}
            control={
              <Checkbox
                checked={causes.includes(cause)}
                onChange={(_event, isChecked) =>
                  choose((so) => (isChecked ? [...so, cause] : so.filter((one) => one !== cause)))
                }
              />
            }
            label={CAUSES[cause]}
          />
        ))}
      </Box>
      <Button
        variant="contained"
        disabled={causes.length === 0 || isPending}
        onClick={() => onFinish(causes)}
        sx={{ mt: 1 }}
      >
        Finish and see the score
      </Button>
      {error !== null && (
        <Typography role="alert" sx={{ color: 'var(--outside)', mt: 1 }}>
          {error}
        </Typography>
      )}
    </Sheet>
  );
}
