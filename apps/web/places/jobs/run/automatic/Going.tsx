'use client';
/** A run that goes by itself at a bench: watched here, and taken back into one's own hands here. */
import type { Order, Phase } from '@barys/core/automatic';
import { convert, isUnit, unitLabel } from '@barys/core/units';
import type { ShownValue } from '@barys/store/benches';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { figuresOfRun, pointWords } from '@/ui/figures';
import { Figure } from '@/ui/Figure';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { useLater } from '@/ui/useLater';
import { useSubmit } from '@/ui/useSubmit';
import type { ShownRun } from '../types';
import { endAutomaticAction, orderAutomaticAction } from './actions';
import type { Trace } from './LiveStrip';
import type { SeenAutomatic } from './seen';
import type { Moment } from './useSeen';

const PHASE: Readonly<Record<Phase, string>> = {
  'backing off': 'Going back, to come from the right side',
  approaching: 'On its way',
  'closing in': 'Closing in slowly',
  settling: 'Settling',
  held: 'Held',
  finished: 'Finished',
};

/** What is said at one channel now, in a unit; null where nothing is. */
function valueIn(
  values: readonly ShownValue[],
  device: string | null,
  channel: string,
  unit: string,
): number | null {
  const found = values.find((one) => one.device === device && one.channel === channel);
  if (found?.value == null) return null;
  if (found.unit === unit) return found.value;
  return isUnit(found.unit) && isUnit(unit) ? convert(found.value, found.unit, unit) : null;
}

/** What pressure and output are at a moment, in the units of the run. */
function valuesAt({ madeWith: { configuration } }: ShownRun, automatic: SeenAutomatic, moment: Moment) {
  const values = moment.benches.find(({ id }) => id === automatic.bench.id)?.values ?? [];
  return {
    reference: valueIn(values, automatic.reference, 'pressure', configuration.inputUnit),
    output: valueIn(values, automatic.output, 'current', configuration.outputUnit),
  };
}

const loadStrip = () => import('./LiveStrip');

/** The strip, once what draws it is there; its figures stand beside it. */
function Strip(props: { traces: readonly Trace[]; target: number | null }) {
  const part = useLater(loadStrip);
  return (
    <div>
      {part !== null && part !== 'away' && <part.LiveStrip {...props} />}
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        Per cent of range: pressure solid, output dashed.
      </Typography>
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
  const figures = figuresOfRun(run.madeWith);
  const last = history.at(-1);
  const bench = last?.benches.find(({ id }) => id === automatic.bench.id);
  const { reference, output } =
    last === undefined || isAway ? { reference: null, output: null } : valuesAt(run, automatic, last);
  const inPercent = (value: number | null, low: number, high: number) =>
    value === null ? null : ((value - low) / (high - low)) * 100;
  const traces: Trace[] = history.map((moment) => {
    const then = valuesAt(run, automatic, moment);
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
      title={`By itself at ${automatic.bench.name}`}
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
          <Words isAway={isAway} isThere={bench?.isThere ?? false} state={state} point={point} />
          <Stack direction="row" sx={{ gap: 3, flexWrap: 'wrap' }}>
            <Live
              what={automatic.reference}
              value={reference}
              unit={unitLabel(configuration.inputUnit)}
              show={(value) => figures.input(value)}
            />
            <Live
              what={automatic.output}
              value={output}
              unit={configuration.outputUnit}
              show={(value) => figures.output(value)}
            />
          </Stack>
          <Orders runId={run.id} isHeld={state?.phase === 'held'} onTold={onTold} />
        </Stack>
        <Strip traces={traces} target={point?.nominalPercent ?? null} />
      </Box>
    </Sheet>
  );
}

function Words({
  isAway,
  isThere,
  state,
  point,
}: {
  isAway: boolean;
  isThere: boolean;
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
  const phase = state === null ? 'The link takes it up' : PHASE[state.phase];
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

function Live({
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

function Orders({ runId, isHeld, onTold }: { runId: number; isHeld: boolean; onTold: () => void }) {
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
        {isHeld ? order('go on', 'Go on', true) : order('hold', 'Hold', true)}
        {order('one point', 'One point')}
        {order('repeat', 'Repeat the last')}
        {order('vent', 'Vent')}
        <Button onClick={() => end.submit(undefined)} sx={{ minHeight: 44 }}>
          Take over by hand
        </Button>
      </Stack>
      <Refused answer={tell.answer} />
      <Refused answer={end.answer} />
    </>
  );
}
