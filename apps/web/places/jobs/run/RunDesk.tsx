'use client';
/** The run screen: the climb above; what to apply, the corridor and the stave below. */
import { standardAt } from '@barys/store/evaluation';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useRef, useState, type RefObject } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { CorridorSheet } from '@/ui/CorridorSheet';
import { Sheet } from '@/ui/Sheet';
import { Stave } from '@/ui/Stave';
import { ApplyPanel, RunFigures } from './ApplyPanel';
import { Going } from './automatic/Going';
import { StartForm } from './automatic/StartForm';
import { useSeen } from './automatic/useSeen';
import { Climb } from './Climb';
import { climbOf } from './climbOf';
import { Finish } from './Finish';
import { FromSheet } from './FromSheet';
import { HandKeys, type Hand } from './HandKeys';
import { KeysSheet } from './KeysSheet';
import { MarkField } from './MarkField';
import { ReadingField } from './ReadingField';
import { RunStatus } from './RunStatus';
import { SettleTimer } from './SettleTimer';
import type { ShownRun } from './types';
import { useDesk, type DeskState } from './useDesk';
import { useRunEntry } from './useRunEntry';

type Entering = ReturnType<typeof useRunEntry>;

export function RunDesk({ jobId, run, earlier }: { jobId: number; run: ShownRun; earlier: ShownRun | null }) {
  const [isHelpOpen, setIsHelpOpen] = useState(false);
  const entering = useRunEntry(run, () => setIsHelpOpen(true));
  const { readings, standing, current, move } = entering;
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
      <Box
        sx={{
          display: 'grid',
          gap: 1.5,
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: '1fr 1.45fr 1.1fr' },
          gridTemplateAreas: {
            xs: '"apply" "climb" "corridor" "stave"',
            md: '"climb climb climb" "apply corridor stave"',
          },
        }}
      >
        <ToApply jobId={jobId} run={run} entering={entering} hand={desk.isMine ? hand : null} />
        <Climbing run={run} earlier={earlier} entering={entering} isMine={desk.isMine} hand={hand} />
        <CorridorSheet
          asFound={earlier ?? standing}
          asLeft={earlier === null ? null : standing}
          height={205}
          sx={{ gridArea: 'corridor' }}
        />
        <StaveOfRun run={run} entering={entering} />
      </Box>
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

function ToApply({
  jobId,
  run,
  entering,
  hand,
}: {
  jobId: number;
  run: ShownRun;
  entering: Entering;
  /** The field's hand; null where another browser is at the job. */
  hand: RefObject<Hand | null> | null;
}) {
  const { madeWith } = run;
  const { current, applied, figures, isComplete, readings } = entering;
  return (
    <Sheet
      // On a phone what to apply stays in sight while the treads scroll under it.
      sx={{
        gridArea: 'apply',
        position: { xs: 'sticky', md: 'static' },
        top: 0,
        zIndex: 3,
        p: { xs: 1.25, md: 2 },
      }}
    >
      {current === null || applied === null ? (
        <Finish
          jobId={jobId}
          kind={run.kind}
          count={madeWith.points.length}
          isSaved={readings.waitingCount === 0}
        />
      ) : (
        <ApplyPanel madeWith={madeWith} point={current} applied={applied} figures={figures}>
          {madeWith.settle !== null && (
            <SettleTimer
              settle={madeWith.settle}
              startedAt={entering.settlingSince}
              onStart={() => entering.startSettling(Date.now())}
            />
          )}
        </ApplyPanel>
      )}
      {current !== null && hand !== null && <HandKeys hand={hand} onLetter={entering.onLetter} />}
      {/* On a phone the keys take their place while there is something to type. */}
      <Box sx={{ display: { xs: current === null ? 'block' : 'none', md: 'block' } }}>
        <RunFigures evaluation={entering.evaluation} figures={figures} />
      </Box>
      {current !== null && isComplete && (
        <Button onClick={() => entering.choose(null)} sx={{ mt: 1 }}>
          Done correcting
        </Button>
      )}
    </Sheet>
  );
}

function Climbing({
  run: { madeWith },
  earlier,
  entering,
  isMine,
  hand,
}: {
  run: ShownRun;
  earlier: ShownRun | null;
  entering: Entering;
  isMine: boolean;
  hand: RefObject<Hand | null>;
}) {
  const { points } = madeWith;
  const { readings, current, figures, judgedAt, marking } = entering;
  const cycles = points.at(-1)?.cycle ?? 1;
  const cycle = current?.cycle ?? cycles;
  return (
    <Box sx={{ gridArea: 'climb' }}>
      {cycles > 1 && (
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          Cycle {cycle} of {cycles}
        </Typography>
      )}
      {marking !== null && current !== null && (
        <MarkField
          kind={marking}
          onKeep={(remark) => entering.keepMark(marking, remark)}
          onLeave={entering.leaveMark}
        />
      )}
      <Climb
        head={madeWith.head}
        points={climbOf(points, cycle, { ...readings, judgedAt, earlier: earlier?.readings ?? [] })}
        current={current?.position ?? null}
        figures={figures}
        onChoose={entering.choose}
        field={
          current !== null &&
          isMine && (
            <ReadingField
              key={current.position}
              point={current}
              madeWith={madeWith}
              doubt={entering.doubt}
              draft={entering.draft}
              figures={figures}
              onDraft={entering.type}
              onEnter={entering.enter}
              onMove={entering.move}
              onColumn={entering.enterColumn}
              onLetter={entering.onLetter}
              hand={hand}
            />
          )
        }
      />
    </Box>
  );
}

function StaveOfRun({
  run: { madeWith },
  entering: { current, applied },
}: {
  run: ShownRun;
  entering: Entering;
}) {
  const { pressureReference, secondReference, meter } = madeWith;
  const standards =
    current === null || secondReference === null
      ? `Reference ${[pressureReference, secondReference].flatMap((one) => one?.tag ?? []).join(' and ')}`
      : `Reference at this point ${standardAt(madeWith, current).tag}`;
  return (
    <Sheet sx={{ gridArea: 'stave' }} title="Signal stave">
      <Stave
        body={madeWith.body}
        configuration={madeWith.configuration}
        marker={applied ?? undefined}
        spacing={52}
      />
      <Typography variant="body2" sx={{ color: 'text.secondary', mt: 0.5 }}>
        {standards}
        {meter === null ? ', read by eye' : `, meter ${meter.tag}`}
      </Typography>
    </Sheet>
  );
}
