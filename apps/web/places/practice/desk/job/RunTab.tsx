'use client';
/** The run of a lesson on the run screen of a job, as a phone has it: the bench stands beside it. */
import type { Act, Pass, PracticeBench } from '@barys/rig/practice';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useRef, useState } from 'react';
import type { Hand } from '@/places/jobs/run/HandKeys';
import { KeysSheet } from '@/places/jobs/run/KeysSheet';
import { RunBoard } from '@/places/jobs/run/RunBoard';
import { RunStatus } from '@/places/jobs/run/RunStatus';
import { useRunEntry } from '@/places/jobs/run/useRunEntry';
import { shownRunOf } from './lessonRun';
import { useBenchReadings } from './useBenchReadings';

export function RunTab({
  bench,
  pass,
  onDo,
  onGoOn,
}: {
  bench: PracticeBench;
  pass: Pass;
  onDo: (act: Act) => string | null;
  /** To what comes after the run. */
  onGoOn: () => void;
}) {
  const run = shownRunOf(bench, pass);
  const [isHelpOpen, setIsHelpOpen] = useState(false);
  const readings = useBenchReadings(bench, pass, run, onDo);
  const entering = useRunEntry(run, readings, () => setIsHelpOpen(true));
  const hand = useRef<Hand>(null);
  const earlier = pass === 'as left' && bench.lesson.hasAsFound ? shownRunOf(bench, 'as found') : null;
  return (
    <>
      <RunStatus
        readings={readings}
        pasteProblem={entering.pasteProblem}
        onHelp={() => setIsHelpOpen(true)}
      />
      <RunBoard
        run={run}
        earlier={earlier}
        entering={entering}
        isMine
        hand={hand}
        finish={
          <>
            <Typography sx={{ fontWeight: 700, fontSize: 20, mb: 0.5 }}>
              All {run.madeWith.points.length} points are read
            </Typography>
            <Button variant="contained" size="large" onClick={onGoOn} autoFocus>
              {pass === 'as found' ? 'Judge' : 'Say what was wrong'}
            </Button>
          </>
        }
      />
      <KeysSheet isOpen={isHelpOpen} onClose={() => setIsHelpOpen(false)} />
    </>
  );
}
