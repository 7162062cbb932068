'use client';
/** The valves of a hook-up, moved one by one; what a move would do wrong is said before it is kept. */
import {
  faultInWords,
  faultsIn,
  HOOK_UPS,
  lackInWords,
  lacksOf,
  moveInWords,
  moveValve,
  wayTo,
  type Arrangement,
  type ValveId,
  type ValveMove,
} from '@barys/core/hookup';
import type { MadeMove, ValveStage } from '@barys/store/jobs';
import { valvesOfJob } from '@barys/store/shapes';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useMemo, useState } from 'react';
import { DataTable } from '@/ui/DataTable';
import { HookUpDrawing } from '@/ui/HookUpDrawing';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { useSubmit } from '@/ui/useSubmit';
import { moveValveAction } from './actions/stages';

export function ValveDesk({
  job,
  tag,
  stage,
  arrangement,
  moves,
}: {
  job: number;
  tag: string;
  stage: ValveStage;
  arrangement: Arrangement;
  moves: readonly Pick<MadeMove, 'valve' | 'to'>[];
}) {
  const { answer, isPending, submit } = useSubmit(moveValveAction);
  const [doubted, setDoubted] = useState<ValveMove | null>(null);
  const state = useMemo(() => valvesOfJob(arrangement, moves), [arrangement, moves]);
  const goal = stage === 'isolate' ? 'isolated' : 'in-service';
  const way = useMemo(() => wayTo(arrangement, state, goal), [arrangement, state, goal]);
  const hookUp = HOOK_UPS[arrangement];
  const faults = faultsIn(arrangement, state);
  const lacks = lacksOf(arrangement, state, goal);

  const keep = (move: ValveMove, isMadeAnyway: boolean) => {
    setDoubted(null);
    submit({ job, stage, ...move, isMadeAnyway, known: moves.length });
  };
  const turn = (valve: ValveId) => {
    const move: ValveMove = { valve, to: state.valves[valve] === 'open' ? 'closed' : 'open' };
    if (moveValve(arrangement, state, move).faults.length > 0) setDoubted(move);
    else keep(move, false);
  };

  return (
    <Sheet
      title={stage === 'isolate' ? 'Valves, out of service' : 'Valves, back to service'}
      aside={hookUp.name}
    >
      <div aria-live="assertive">
        {faults.map((fault) => (
          <Alert key={fault} severity="error" variant="outlined" sx={{ mb: 1 }}>
            {faultInWords(arrangement, fault)}
          </Alert>
        ))}
      </div>
      <HookUpDrawing
        arrangement={arrangement}
        state={state}
        tag={tag}
        next={way?.[0]?.valve ?? null}
        onValve={turn}
      />
      <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1 }}>
        Thick lines hold pressure. Make each move, then press it here or on the drawing.
      </Typography>
      <NextMove
        stage={stage}
        arrangement={arrangement}
        way={way}
        lacks={lacks}
        isPending={isPending}
        turn={turn}
      />
      <ValveTable valves={hookUp.valves} stands={state.valves} isPending={isPending} turn={turn} />
      <Refused answer={answer} />
      <DoubtedMove
        arrangement={arrangement}
        state={state}
        move={doubted}
        keep={(move) => keep(move, true)}
        leave={() => setDoubted(null)}
      />
    </Sheet>
  );
}

/** What comes next on the way, or what the valves say where there is nothing to do. */
function NextMove({
  stage,
  arrangement,
  way,
  lacks,
  isPending,
  turn,
}: {
  stage: ValveStage;
  arrangement: Arrangement;
  way: ReturnType<typeof wayTo>;
  lacks: ReturnType<typeof lacksOf>;
  isPending: boolean;
  turn: (valve: ValveId) => void;
}) {
  const next = way?.[0] ?? null;
  return (
    <Stack direction="row" sx={{ alignItems: 'center', gap: 1.5, mb: 1, minHeight: 48, flexWrap: 'wrap' }}>
      {way === null ? (
        <Typography sx={{ fontWeight: 700 }}>
          From here no order of the valves is without a fault. Stop, leave them as they stand, and ask whoever
          is responsible for the line.
        </Typography>
      ) : next === null ? (
        <Typography sx={{ fontWeight: 700 }}>
          {lacks.length === 0
            ? stage === 'isolate'
              ? 'Isolated: all valves stand right.'
              : 'In service: all valves stand right.'
            : lacks.map((lack) => lackInWords(arrangement, lack)).join(' ')}
        </Typography>
      ) : (
        <Button
          variant="contained"
          size="large"
          autoFocus
          // Not disabled meanwhile: it would lose the focus, and with it the keyboard its next move.
          onClick={() => !isPending && turn(next.valve)}
        >
          Next: {moveInWords(arrangement, next).toLowerCase()}
        </Button>
      )}
    </Stack>
  );
}

function ValveTable({
  valves,
  stands,
  isPending,
  turn,
}: {
  valves: (typeof HOOK_UPS)[Arrangement]['valves'];
  stands: ReturnType<typeof valvesOfJob>['valves'];
  isPending: boolean;
  turn: (valve: ValveId) => void;
}) {
  return (
    <DataTable
      label="Valves"
      rows={valves}
      keyOf={({ id }) => id}
      columns={[
        ['Valve', ({ name }) => name],
        ['Stands', ({ id }) => stands[id] ?? ''],
        [
          'Move',
          ({ id, name }) => (
            <Button
              size="small"
              disabled={isPending}
              onClick={() => turn(id)}
              aria-label={`${stands[id] === 'open' ? 'Close' : 'Open'} ${name.toLowerCase()}`}
            >
              {stands[id] === 'open' ? 'Close' : 'Open'}
            </Button>
          ),
        ],
      ]}
    />
  );
}

/** A move that would be wrong now: asked about before it is kept. */
function DoubtedMove({
  arrangement,
  state,
  move,
  keep,
  leave,
}: {
  arrangement: Arrangement;
  state: ReturnType<typeof valvesOfJob>;
  move: ValveMove | null;
  keep: (move: ValveMove) => void;
  leave: () => void;
}) {
  return (
    <Dialog open={move !== null} onClose={leave} aria-labelledby="doubted-title">
      <DialogTitle id="doubted-title">
        {move === null ? '' : `${moveInWords(arrangement, move)}? Not now.`}
      </DialogTitle>
      <DialogContent>
        {move !== null &&
          moveValve(arrangement, state, move).faults.map((fault) => (
            <Typography key={fault} sx={{ mb: 1 }}>
              {faultInWords(arrangement, fault)}
            </Typography>
          ))}
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          Nothing is kept yet. If the valve was already moved, keep it: the record has to say so.
        </Typography>
      </DialogContent>
      <DialogActions>
        <Button onClick={() => move !== null && keep(move)}>It was moved, keep it</Button>
        <Button variant="contained" autoFocus onClick={leave}>
          Leave it as it is
        </Button>
      </DialogActions>
    </Dialog>
  );
}
