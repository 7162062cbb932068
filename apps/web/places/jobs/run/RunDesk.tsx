'use client';
/** The run screen of a job: who is at it, how far its readings have come, what goes by itself, and the run. */
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import { useRef, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { Going } from './automatic/Going';
import { StartForm } from './automatic/StartForm';
import { useSeen } from './automatic/useSeen';
import { Finish } from './Finish';
import { FromSheet } from './FromSheet';
import type { Hand } from './HandKeys';
import { KeysSheet } from './KeysSheet';
import { RunBoard } from './RunBoard';
import { RunStatus } from './RunStatus';
import type { ShownRun } from './types';
import { useDesk, type DeskState } from './useDesk';
import { useReadings } from './useReadings';
import { useRunEntry } from './useRunEntry';

export function RunDesk({ jobId, run, earlier }: { jobId: number; run: ShownRun; earlier: ShownRun | null }) {
  const [isHelpOpen, setIsHelpOpen] = useState(false);
  const readings = useReadings(run);
  const entering = useRunEntry(run, readings, () => setIsHelpOpen(true));
  const { current, move } = entering;
  const { desk, takeOver } = useDesk(jobId);
  const { seen, history, isAway, ask } = useSeen(run.id, readings.learn);
  const hand = useRef<Hand>(null);
  useHotkeys('up', () => move(-1), { enabled: current === null });
  useHotkeys('shift+slash', () => setIsHelpOpen(true), { enabled: current === null });
  return (
    <>
      <WhoIsAtIt desk={desk} takeOver={takeOver} />
      <RunStatus
        readings={readings}
        pasteProblem={entering.pasteProblem}
        onHelp={() => setIsHelpOpen(true)}
      />
      {seen !== null && seen.automatic !== null && (
        <Going run={run} automatic={seen.automatic} history={history} isAway={isAway} onTold={ask} />
      )}
      <RunBoard
        run={run}
        earlier={earlier}
        entering={entering}
        isMine={desk.isMine}
        hand={hand}
        finish={
          <Finish
            jobId={jobId}
            kind={run.kind}
            count={run.madeWith.points.length}
            isSaved={readings.waitingCount === 0}
          />
        }
      />
      {seen !== null && seen.automatic === null && seen.benches.length > 0 && (
        <StartForm run={run} benches={seen.benches} whyNot={seen.whyNot} onStarted={ask} />
      )}
      <FromSheet time={entering.sheetTime} onTime={entering.setSheetTime} />
      <KeysSheet isOpen={isHelpOpen} onClose={() => setIsHelpOpen(false)} />
    </>
  );
}

function WhoIsAtIt({ desk, takeOver }: { desk: DeskState; takeOver: () => void }) {
  if (desk.isMine) return null;
  const action = desk.canTakeOver && (
    <Button onClick={takeOver} autoFocus sx={{ whiteSpace: 'nowrap' }}>
      Take the job over
    </Button>
  );
  return (
    <Alert severity="info" variant="outlined" sx={{ mb: 1 }} action={action}>
      {desk.words}
    </Alert>
  );
}
