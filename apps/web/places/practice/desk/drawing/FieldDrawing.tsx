'use client';
/** An instrument on its process: the hook-up with its valves, the sight glass beside it, and what the transmitter shows. */
import { HOOK_UPS, type ValveId } from '@barys/core/hookup';
import { formatFixed } from '@barys/core/text';
import type { PracticeBench } from '@barys/rig/practice';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Box from '@mui/material/Box';
import { HookUpDrawing } from '@/ui/HookUpDrawing';
import { Instrument } from './Instrument';
import { Text, type Do } from './parts';

type Field = NonNullable<PracticeBench['field']>;

/** The glass of the vessel: what the level really is, as an eye sees it from the platform. */
function Glass({ share }: { share: number }) {
  const height = 150;
  return (
    <g transform="translate(110 270)">
      <Text x={38} y={-8} colour="var(--muted)" size={13}>
        sight glass, %
      </Text>
      <rect x={0} y={0} width={26} height={height} fill="var(--sheet)" stroke="var(--ink)" strokeWidth={2} />
      <rect x={1} y={height * (1 - share)} width={24} height={height * share - 1} fill="var(--muted)" />
      {[0, 20, 40, 60, 80, 100].map((mark) => (
        <g key={mark}>
          <line
            x1={26}
            x2={36}
            y1={height * (1 - mark / 100)}
            y2={height * (1 - mark / 100)}
            stroke="var(--ink)"
          />
          <Text x={42} y={height * (1 - mark / 100) + 5} size={13} isFigure anchor="start">
            {mark}
          </Text>
        </g>
      ))}
    </g>
  );
}

export function FieldDrawing({ bench, field, onDo }: { bench: PracticeBench; field: Field; onDo: Do }) {
  const { arrangement, head } = field.process;
  const { lrv, urv } = bench.lesson.range;
  const turn = (valve: ValveId) =>
    onDo?.({ do: 'valve', move: { valve, to: field.state.valves[valve] === 'open' ? 'closed' : 'open' } });
  return (
    <>
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: 'minmax(0, 1fr)', sm: '1.5fr 1fr' }, gap: 1 }}>
        <HookUpDrawing
          arrangement={arrangement}
          state={field.state}
          tag="LT"
          next={null}
          {...(onDo === null ? {} : { onValve: turn })}
        />
        <svg
          viewBox="0 0 300 436"
          width="100%"
          role="group"
          aria-label="The bench"
          style={{ display: 'block', maxHeight: 400 }}
        >
          <Instrument x={10} y={8} bench={bench} onDo={onDo} />
          <Glass share={(head - lrv) / (urv - lrv)} />
        </svg>
      </Box>
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', mb: 1 }} role="group" aria-label="Valves">
        {HOOK_UPS[arrangement].valves.map(({ id, name }) => {
          const isOpen = field.state.valves[id] === 'open';
          return (
            <Button
              key={id}
              variant="outlined"
              disabled={onDo === null}
              onClick={() => turn(id)}
              aria-label={`${isOpen ? 'Close' : 'Open'} ${name.toLowerCase()}`}
            >
              {name}: {isOpen ? 'open' : 'closed'}
            </Button>
          );
        })}
        <Button
          variant="outlined"
          disabled={onDo === null || field.isFilling}
          onClick={() => onDo?.({ do: 'fill leg' })}
        >
          {field.isFilling ? 'The leg is being filled' : 'Fill the leg'}
        </Button>
      </Stack>
      <Box component="p" sx={{ m: 0, mb: 1, fontSize: 14, color: 'text.secondary' }}>
        The plug of the pot shows {field.filled > 0.98 ? 'liquid' : 'no liquid'}; the vessel stands under{' '}
        {formatFixed(field.process.staticPressure, 0)} kPa.
      </Box>
    </>
  );
}
