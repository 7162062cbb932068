'use client';
/** What is told to an instrument that has no screw, and what a controller is set to. */
import type { Act, PracticeBench } from '@barys/rig/practice';
import { formatPlain } from '@barys/core/text';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState, type SyntheticEvent } from 'react';
import { readNumber } from '@/ui/readNumber';
import { Sheet } from '@/ui/Sheet';

interface Props {
  bench: PracticeBench;
  onDo: (act: Act) => string | null;
}

/** A number and what is done with it. */
function NumberAct({
  label,
  word,
  first = '',
  onGive,
}: {
  label: string;
  word: string;
  first?: string;
  onGive: (value: number) => void;
}) {
  const [text, setText] = useState(first);
  const [error, setError] = useState<string | null>(null);
  const give = (event: SyntheticEvent) => {
    event.preventDefault();
    const { value, error: wrong } = readNumber(text);
    setError(value === null ? (wrong ?? 'A number is needed.') : null);
    if (value !== null) onGive(value);
  };
  return (
    <Stack component="form" direction="row" sx={{ gap: 1 }} onSubmit={give} noValidate>
      <TextField
        label={label}
        value={text}
        onChange={({ target }) => setText(target.value)}
        error={error !== null}
        helperText={error}
        slotProps={{ htmlInput: { inputMode: 'decimal' } }}
        autoComplete="off"
        fullWidth
      />
      <Button
        type="submit"
        variant="outlined"
        sx={{ whiteSpace: 'nowrap', alignSelf: 'flex-start', minHeight: 44 }}
      >
        {word}
      </Button>
    </Stack>
  );
}

export function ControllerPanel({ bench: { lesson }, onDo }: Props) {
  return (
    <Sheet title="Controller">
      <NumberAct
        label={`Pressure, ${lesson.unit}`}
        word="Set it"
        onGive={(to) => onDo({ do: 'pressure', to })}
      />
    </Sheet>
  );
}

/** What a communicator does, in words and not by numbers of parameters. */
const COMMANDS = [
  'Zero trim',
  'Lower sensor trim',
  'Upper sensor trim',
  'Output trim at 4 mA',
  'Output trim at 20 mA',
  'Hold the loop',
  'Let the loop go',
  'Upper range value',
  'Output follows',
] as const;
type CommandName = (typeof COMMANDS)[number];

export function Communicator({ bench, onDo }: Props) {
  const [chosen, choose] = useState<CommandName>('Zero trim');
  const [answer, setAnswer] = useState('');
  const tell = (command: Extract<Act, { readonly do: 'tell' }>['command']) =>
    setAnswer(onDo({ do: 'tell', command }) ?? 'done');
  const { tested } = bench.world;
  if (tested.kind !== 'smart transmitter') return null;
  const { settings } = tested.state;
  const root =
    bench.lesson.range.transferFunction?.kind === 'square-root-cut-off'
      ? bench.lesson.range.transferFunction
      : { kind: 'linear' as const };
  return (
    <Sheet title="Communicator" aside={answer === '' ? undefined : <span role="status">{answer}</span>}>
      <Typography variant="body2" sx={{ mb: 1.5 }}>
        Range {formatPlain(settings.lrv)} to {formatPlain(Number(settings.urv.toPrecision(6)))}{' '}
        {bench.lesson.unit}; the output follows the {settings.drivenBy},{' '}
        {settings.transfer.kind === 'linear' ? 'linear' : 'by the root'}; the scaled variable is{' '}
        {settings.scaledTransfer.kind === 'linear' ? 'linear' : 'the root'}.
      </Typography>
      <Stack sx={{ gap: 1 }}>
        <TextField
          select
          label="What"
          value={chosen}
          onChange={({ target }) => {
            choose(target.value as CommandName);
            setAnswer('');
          }}
        >
          {COMMANDS.map((one) => (
            <MenuItem key={one} value={one}>
              {one}
            </MenuItem>
          ))}
        </TextField>
        {(chosen === 'Zero trim' || chosen === 'Let the loop go') && (
          <Button
            variant="outlined"
            onClick={() =>
              tell(chosen === 'Zero trim' ? { kind: 'zero trim' } : { kind: 'hold', milliamp: null })
            }
          >
            Do it
          </Button>
        )}
        {(chosen === 'Lower sensor trim' || chosen === 'Upper sensor trim') && (
          <NumberAct
            key={chosen}
            label={`Applied, ${bench.lesson.unit}`}
            word="Trim"
            onGive={(applied) =>
              tell({ kind: 'sensor trim', end: chosen === 'Lower sensor trim' ? 'lower' : 'upper', applied })
            }
          />
        )}
        {(chosen === 'Output trim at 4 mA' || chosen === 'Output trim at 20 mA') && (
          <NumberAct
            key={chosen}
            label="Measured, mA"
            word="Trim"
            onGive={(measured) =>
              tell({ kind: 'output trim', at: chosen === 'Output trim at 4 mA' ? 4 : 20, measured })
            }
          />
        )}
        {chosen === 'Hold the loop' && (
          <NumberAct
            label="At, mA"
            word="Hold"
            first="4"
            onGive={(milliamp) => tell({ kind: 'hold', milliamp })}
          />
        )}
        {chosen === 'Upper range value' && (
          <NumberAct
            label={`URV, ${bench.lesson.unit}`}
            word="Set"
            onGive={(urv) => tell({ kind: 'set', settings: { urv } })}
          />
        )}
        {chosen === 'Output follows' && (
          <Button
            variant="outlined"
            onClick={() =>
              tell({
                kind: 'set',
                settings: { drivenBy: 'pressure', scaledTransfer: { kind: 'linear' }, transfer: root },
              })
            }
          >
            The pressure, with the root taken once as the data sheet says
          </Button>
        )}
      </Stack>
    </Sheet>
  );
}

export function GaugeKeys({ bench, onDo }: Props) {
  const [answer, setAnswer] = useState('');
  const take = (point: 'zero' | 'middle' | 'full') => (said: number) =>
    setAnswer(onDo({ do: 'take', point, said }) ?? '');
  const { tested } = bench.world;
  if (tested.kind !== 'digital gauge') return null;
  return (
    <Sheet title="Keys of the gauge" aside={answer === '' ? undefined : <span role="status">{answer}</span>}>
      <Typography variant="body2" sx={{ mb: 1.5 }}>
        Calibrated in the field {tested.state.fieldCalibrations} times since the factory. It takes a value
        once it has stood for a while.
      </Typography>
      <Stack sx={{ gap: 1 }}>
        <NumberAct label={`Zero is, ${bench.lesson.unit}`} word="Take zero" first="0" onGive={take('zero')} />
        <NumberAct label={`Middle is, ${bench.lesson.unit}`} word="Take middle" onGive={take('middle')} />
        <NumberAct label={`Full scale is, ${bench.lesson.unit}`} word="Take full" onGive={take('full')} />
        <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
          <Button variant="outlined" onClick={() => onDo({ do: 'restore', set: 'factory' })}>
            Restore factory values
          </Button>
          <Button onClick={() => onDo({ do: 'restore', set: 'last field' })}>
            Restore last field values
          </Button>
        </Stack>
      </Stack>
    </Sheet>
  );
}
