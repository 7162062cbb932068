'use client';
/** A run at work: the climb above; what to apply, the corridor and the stave below. A job and a practice bench have the same. */
import { standardAt } from '@barys/store/evaluation';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { ReactNode, RefObject } from 'react';
import { CorridorSheet } from '@/ui/CorridorSheet';
import { Sheet } from '@/ui/Sheet';
import { Stave } from '@/ui/Stave';
import { ApplyPanel, RunFigures } from './ApplyPanel';
import { columnLabel } from '../columnWords';
import { Climb } from './Climb';
import { climbOf } from './climbOf';
import { HandKeys, type Hand } from './HandKeys';
import { MarkField } from './MarkField';
import { ReadingField } from './ReadingField';
import { SettleTimer } from './SettleTimer';
import type { ShownRun } from './types';
import type { useRunEntry } from './useRunEntry';

type Entering = ReturnType<typeof useRunEntry>;

// The same one each time: the corridor is drawn again only with another reading.
const AT_CORRIDOR = { gridArea: 'corridor' };

export function RunBoard({
  run,
  earlier,
  entering,
  isMine,
  hand,
  finish,
}: {
  run: ShownRun;
  /** The run before, drawn pale; null where there is none to stand beside. */
  earlier: ShownRun | null;
  entering: Entering;
  /** Whether this browser types. */
  isMine: boolean;
  hand: RefObject<Hand | null>;
  /** What stands in the place of what to apply once all points are read. */
  finish: ReactNode;
}) {
  const { standing } = entering;
  return (
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
      <ToApply run={run} entering={entering} hand={isMine ? hand : null} finish={finish} />
      <Climbing run={run} earlier={earlier} entering={entering} isMine={isMine} hand={hand} />
      <CorridorSheet
        asFound={earlier ?? standing}
        asLeft={earlier === null ? null : standing}
        height={205}
        sx={AT_CORRIDOR}
      />
      <StaveOfRun run={run} entering={entering} />
    </Box>
  );
}

function ToApply({
  run,
  entering,
  hand,
  finish,
}: {
  run: ShownRun;
  entering: Entering;
  /** The field's hand; null where another browser is at the job. */
  hand: RefObject<Hand | null> | null;
  finish: ReactNode;
}) {
  const { madeWith } = run;
  const { current, applied, figures, isComplete } = entering;
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
        finish
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
        nameOf={(column) => (column === 'before-tap' ? 'untapped' : columnLabel(madeWith, column))}
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
