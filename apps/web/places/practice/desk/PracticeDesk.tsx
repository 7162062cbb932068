'use client';
/** A lesson at the bench: the bench with its tools, and the job beside it. */
import { lessonOf, type Cause, type Lesson, type Score } from '@barys/rig/practice';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useRouter } from 'next/navigation';
import { useCallback, useState, useTransition } from 'react';
import { Columns } from '@/ui/Columns';
import { Sheet } from '@/ui/Sheet';
import { useIsMounted } from '@/ui/useIsMounted';
import { finishAction } from '../actions';
import { BenchDrawing } from './drawing/BenchDrawing';
import { JobTabs } from './job/JobTabs';
import { Result } from './Result';
import { Communicator } from './tools/Communicator';
import { ControllerPanel } from './tools/ControllerPanel';
import { ExchangePanel } from './tools/ExchangePanel';
import { GaugeKeys, VacuumKeys } from './tools/GaugeKeys';
import { deskName, forgetBench, useBench } from './useBench';
import { DeskName } from './useDeskText';

const NONE: readonly Cause[] = [];

/** A lesson by its id, since what it does cannot travel from the server to the browser. */
export function PracticeDesk({ lesson, seed }: { lesson: string; seed: number }) {
  const isMounted = useIsMounted();
  if (!isMounted)
    return <Typography sx={{ color: 'text.secondary' }}>The bench is being set up …</Typography>;
  const shown = lessonOf(lesson);
  return (
    <DeskName key={`${lesson} ${seed}`} value={deskName(shown, seed)}>
      <Desk lesson={shown} seed={seed} />
    </DeskName>
  );
}

/** What stands beside a lesson on the bench: it counts, and takes points where it should. */
function soFar(seconds: number, hints: number): string {
  const minutes = Math.floor(seconds / 60);
  const time = `${minutes} min ${Math.floor(seconds % 60)} s`;
  return hints === 0 ? time : `${time}, ${hints} ${hints === 1 ? 'hint' : 'hints'} (−${hints * 3})`;
}

type Hands = ReturnType<typeof useBench>;

/** Finishing a lesson: its score once the server has it. */
function useFinish(lesson: Lesson, seed: number, { bench, clientKey, stop }: Hands) {
  const [score, setScore] = useState<Score | null>(null);
  const [error, setError] = useState<string | null>(null);
  const [isPending, begin] = useTransition();
  const finish = useCallback(() => {
    stop();
    setError(null);
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
  }, [bench, clientKey, lesson, seed, stop]);
  return { score, error, isPending, finish };
}

/** The drawing, time that goes by, and what was done against safety. */
function BenchSheet({ bench, do: work, pass }: Pick<Hands, 'bench' | 'do' | 'pass'>) {
  const hints = bench.done.filter(({ act }) => act.do === 'hint').length;
  return (
    <Sheet title="The bench" aside="Drag to turn, or Tab and ← →; Shift a tenth">
      <BenchDrawing bench={bench} onDo={work} />
      <Stack direction="row" sx={{ gap: 1, alignItems: 'center', flexWrap: 'wrap' }}>
        <Button onClick={() => pass(10)}>Wait 10 s</Button>
        <Button onClick={() => pass(60)}>Wait a minute</Button>
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          {soFar(bench.timeS, hints)}
        </Typography>
        {bench.isOver && (
          <Typography variant="body2" role="status" sx={{ fontWeight: 600, flexBasis: '100%' }}>
            Two hours of the bench are over: it stands still. Name what is wrong and finish.
          </Typography>
        )}
        {bench.unsafe.length > 0 && (
          <Typography variant="body2" role="status" sx={{ color: 'var(--outside)', flexBasis: '100%' }}>
            Unsafe: {bench.unsafe.at(-1)?.why}
          </Typography>
        )}
      </Stack>
    </Sheet>
  );
}

function Desk({ lesson, seed }: { lesson: Lesson; seed: number }) {
  const desk = useBench(lesson, seed);
  const { bench, do: work, pass } = desk;
  const { score, error, isPending, finish } = useFinish(lesson, seed, desk);
  const router = useRouter();
  // What is named stands in the record at once, so that a reload does not lose it; the last counts.
  const causes = bench.done.findLast(({ act }) => act.do === 'name')?.act;
  const named = causes?.do === 'name' ? causes.causes : NONE;
  const name = useCallback((next: readonly Cause[]) => void work({ do: 'name', causes: next }), [work]);

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
  const { kind } = bench.world.tested;
  return (
    <Columns columns="1.62fr 1fr">
      <Stack sx={{ gap: 1.5 }}>
        <BenchSheet bench={bench} do={work} pass={pass} />
        <ExchangePanel bench={bench} onDo={work} />
        {lesson.field === null && bench.world.source.kind === 'controller' && (
          <ControllerPanel bench={bench} onDo={work} />
        )}
        <Communicator bench={bench} onDo={work} />
        {kind === 'digital gauge' && <GaugeKeys bench={bench} onDo={work} />}
        {kind === 'heat-loss gauge' && <VacuumKeys bench={bench} onDo={work} />}
      </Stack>
      <JobTabs
        bench={bench}
        count={bench.done.length}
        causes={named}
        onCauses={name}
        onDo={work}
        onFinish={finish}
        isPending={isPending}
        error={error}
      />
    </Columns>
  );
}
