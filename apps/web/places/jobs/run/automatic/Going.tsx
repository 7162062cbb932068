'use client';
/** A run that goes by itself at a bench: watched here, and taken back into one's own hands here. */
import type { Order, Phase } from '@barys/core/automatic';
import { formatSigned } from '@barys/core/text';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useHotkeys } from 'react-hotkeys-hook';
import { DataTable } from '@/ui/DataTable';
import { figuresOfRun, pointWords, type Figures } from '@/ui/figures';
import { Figure } from '@/ui/Figure';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { useLater } from '@/ui/useLater';
import { useSubmit } from '@/ui/useSubmit';
import type { ShownRun } from '../types';
import { endAutomaticAction, orderAutomaticAction } from './actions';
import type { Trace } from './LiveStrip';
import { errorNow, liveAt, type Live, type LiveError } from './live';
import type { SeenAutomatic } from './seen';
import type { Moment } from './useSeen';

const PHASE: Readonly<Record<Phase, string>> = {
  'backing off': 'Going back, to come from the right side',
  approaching: 'On its way',
  'closing in': 'Closing in slowly',
  settling: 'Settling',
  ready: 'It stands',
  held: 'Held',
  finished: 'Finished',
};

const loadStrip = () => import('./LiveStrip');

/** The strip, once what draws it is there; its figures stand behind it. */
function Strip({
  traces,
  target,
  history,
  madeWith,
  automatic,
}: {
  traces: readonly Trace[];
  target: number | null;
  history: readonly Moment[];
  madeWith: ShownRun['madeWith'];
  automatic: SeenAutomatic;
}) {
  const part = useLater(loadStrip);
  const figures = figuresOfRun(madeWith);
  const now = history.at(-1)?.at ?? 0;
  // One in ten seconds, the newest first.
  const rows = history
    .filter(({ at }, index) => Math.floor(at / 10) !== Math.floor((history[index - 1]?.at ?? -10) / 10))
    .map((moment) => ({ ago: Math.round(now - moment.at), ...liveAt(madeWith, automatic, moment.benches) }))
    .reverse();
  const shown = (value: number | null, show: (one: number) => string) => (
    <Figure>{value === null ? '—' : show(value)}</Figure>
  );
  return (
    <div>
      {part !== null && part !== 'away' && <part.LiveStrip traces={traces} target={target} />}
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        Per cent of range: pressure solid, output dashed.
      </Typography>
      <details>
        <summary style={{ minHeight: 44, lineHeight: '44px', cursor: 'pointer' }}>As figures</summary>
        <DataTable
          label="The last two minutes"
          rows={rows}
          keyOf={({ ago }) => ago}
          columns={[
            ['Seconds ago', ({ ago }) => ago, 'right'],
            [
              `Pressure, ${figures.inputUnit}`,
              (row) => shown(row.reference, (one) => figures.input(one)),
              'right',
            ],
            [
              `Output, ${figures.outputUnit}`,
              (row) => shown(row.output, (one) => figures.output(one)),
              'right',
            ],
          ]}
        />
      </details>
    </div>
  );
}

/** The run while it goes by itself. */
export function Going({
  run,
  automatic,
  history,
  isAway,
  onTold,
}: {
  run: ShownRun;
  automatic: SeenAutomatic;
  history: readonly Moment[];
  isAway: boolean;
  onTold: () => void;
}) {
  const { configuration, points } = run.madeWith;
  const last = history.at(-1);
  const bench = last?.benches.find(({ id }) => id === automatic.bench.id);
  const live =
    last === undefined || isAway
      ? { reference: null, output: null, digital: null }
      : liveAt(run.madeWith, automatic, last.benches);
  const inPercent = (value: number | null, low: number, high: number) =>
    value === null ? null : ((value - low) / (high - low)) * 100;
  const traces: Trace[] = history.map((moment) => {
    const then = liveAt(run.madeWith, automatic, moment.benches);
    return {
      at: moment.at,
      reference: inPercent(then.reference, configuration.lrv, configuration.urv),
      output: inPercent(then.output, configuration.outputLow, configuration.outputHigh),
    };
  });
  const { state } = automatic;
  const point = points.find(({ position }) => position === state?.position);
  return (
    <Sheet
      title={`${automatic.isByHand ? 'Live' : 'By itself'} at ${automatic.bench.name}`}
      aside={`started by ${automatic.startedBy}`}
      sx={{ mb: 1.5 }}
    >
      <Box
        sx={{
          display: 'grid',
          gap: 2,
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) minmax(0, 1.1fr)' },
        }}
      >
        <Stack sx={{ gap: 1 }}>
          <Words
            isAway={isAway}
            isThere={bench?.isThere ?? false}
            isByHand={automatic.isByHand}
            state={state}
            point={point}
          />
          <Values run={run} automatic={automatic} live={live} />
          <Orders
            runId={run.id}
            isHeld={state?.phase === 'held'}
            isByHand={automatic.isByHand}
            onTold={onTold}
          />
        </Stack>
        <Strip
          traces={traces}
          target={point?.nominalPercent ?? null}
          history={history}
          madeWith={run.madeWith}
          automatic={automatic}
        />
      </Box>
    </Sheet>
  );
}

function Words({
  isAway,
  isThere,
  isByHand,
  state,
  point,
}: {
  isAway: boolean;
  isThere: boolean;
  isByHand: boolean;
  state: SeenAutomatic['state'];
  point: ShownRun['madeWith']['points'][number] | undefined;
}) {
  if (isAway)
    return (
      <Typography role="status" sx={{ color: 'var(--outside)', fontWeight: 600 }}>
        The server does not answer: how the run stands is not known here. It goes on without this page.
      </Typography>
    );
  if (!isThere)
    return (
      <Typography role="status" sx={{ color: 'var(--outside)', fontWeight: 600 }}>
        Nothing is heard of the bench. Its link goes on by itself once it is back; or take the run over.
      </Typography>
    );
  const isHeld = state?.phase === 'held';
  const phase =
    state === null
      ? 'The link takes it up'
      : isByHand && state.phase === 'approaching'
        ? 'Go there with the pump'
        : PHASE[state.phase];
  return (
    <div role="status">
      <Typography sx={{ fontWeight: 600, color: isHeld ? 'var(--adjust)' : 'text.primary' }}>
        {phase}
        {point !== undefined && `: ${pointWords(point)}`}
        {state?.phase === 'settling' && state.leftS !== null && (
          // Not said aloud at every second.
          <span aria-hidden>{`, ${Math.ceil(state.leftS)} s at least`}</span>
        )}
      </Typography>
      {isHeld && <Typography>{state.words}</Typography>}
    </div>
  );
}

/** What is said now, and near a point what a reading of it would be off. */
function Values({ run, automatic, live }: { run: ShownRun; automatic: SeenAutomatic; live: Live }) {
  const { madeWith } = run;
  const figures = figuresOfRun(madeWith);
  const point = madeWith.points.find(({ position }) => position === automatic.state?.position);
  const isNear = automatic.state?.phase === 'settling' || automatic.state?.phase === 'ready';
  const pressure = { unit: figures.inputUnit, show: (value: number) => figures.input(value) };
  return (
    <>
      <Stack direction="row" sx={{ gap: 3, flexWrap: 'wrap' }}>
        <LiveValue what={automatic.reference} value={live.reference} {...pressure} />
        <LiveValue
          what={automatic.output}
          value={live.output}
          unit={figures.outputUnit}
          show={(value) => figures.output(value)}
        />
        {automatic.digital !== null && (
          <LiveValue what={`${automatic.digital}, digital value`} value={live.digital} {...pressure} />
        )}
      </Stack>
      {point !== undefined && isNear && (
        <ErrorNow error={errorNow(madeWith, point, live)} figures={figures} />
      )}
    </>
  );
}

/** What a reading would be off now, and what is accepted there. */
function ErrorNow({ error, figures }: { error: LiveError | null; figures: Figures }) {
  if (error === null) return null;
  return (
    <Typography>
      Error now <Figure>{formatSigned(error.percent, 3)} % of span</Figure>, accepted{' '}
      <Figure>
        {figures.output(error.lowest)}…{figures.output(error.highest)} {figures.outputUnit}
      </Figure>
      {!error.isAccepted && (
        <Box component="span" sx={{ color: 'var(--outside)', fontWeight: 600 }}>
          {' '}
          outside
        </Box>
      )}
    </Typography>
  );
}

function LiveValue({
  what,
  value,
  unit,
  show,
}: {
  what: string;
  value: number | null;
  unit: string;
  show: (value: number) => string;
}) {
  return (
    <div>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {what}
      </Typography>
      <Figure sx={{ fontSize: 24 }}>{value === null ? 'no value' : `${show(value)} ${unit}`}</Figure>
    </div>
  );
}

function Orders({
  runId,
  isHeld,
  isByHand,
  onTold,
}: {
  runId: number;
  isHeld: boolean;
  isByHand: boolean;
  onTold: () => void;
}) {
  const tell = useSubmit(async (order: Order) => {
    const answer = await orderAutomaticAction({ run: runId, order });
    onTold();
    return answer;
  });
  const end = useSubmit(async () => {
    const answer = await endAutomaticAction({ run: runId });
    onTold();
    return answer;
  });
  const order = (name: Order, words: string, isMain = false) => (
    <Button
      variant={isMain ? 'contained' : 'outlined'}
      onClick={() => tell.submit(name)}
      sx={{ minHeight: 44 }}
    >
      {words}
    </Button>
  );
  return (
    <>
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
        {isHeld ? order('go on', 'Go on', true) : isByHand ? null : order('hold', 'Hold', true)}
        {isByHand && !isHeld && <TakeKey onTake={() => tell.submit('take')} />}
        {!isByHand && order('one point', 'One point')}
        {order('repeat', 'Repeat the last')}
        {!isByHand && order('vent', 'Vent')}
        <Button onClick={() => end.submit(undefined)} sx={{ minHeight: 44 }}>
          {isByHand ? 'End' : 'Take over by hand'}
        </Button>
      </Stack>
      <Refused answer={tell.answer} />
      <Refused answer={end.answer} />
    </>
  );
}

/** Takes both values as soon as they stand: Enter does it too, since hands are at the pump. */
function TakeKey({ onTake }: { onTake: () => void }) {
  useHotkeys(
    'enter',
    (event) => {
      const { target } = event;
      // What is typed is entered, and a button that has the focus is pressed.
      const isOthers =
        target instanceof HTMLButtonElement ||
        target instanceof HTMLAnchorElement ||
        (target instanceof HTMLInputElement && target.value !== '');
      if (isOthers) return;
      event.preventDefault();
      onTake();
    },
    { enableOnFormTags: true },
  );
  return (
    <Button variant="contained" onClick={onTake} sx={{ minHeight: 44 }}>
      Take it (Enter)
    </Button>
  );
}
