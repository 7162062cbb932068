'use client';
/** The keys of a gauge that takes what is applied for what is said. */
import { PRESSURE_UNITS } from '@barys/core/units';
import type { Act, PracticeBench } from '@barys/rig/practice';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Sheet } from '@/ui/Sheet';
import { NumberAct } from './NumberAct';

interface Props {
  bench: PracticeBench;
  onDo: (act: Act) => string | null;
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
        <NumberAct
          label={`Zero is, ${PRESSURE_UNITS[bench.lesson.unit].label}`}
          word="Take zero"
          first="0"
          onGive={take('zero')}
        />
        <NumberAct
          label={`Middle is, ${PRESSURE_UNITS[bench.lesson.unit].label}`}
          word="Take middle"
          onGive={take('middle')}
        />
        <NumberAct
          label={`Full scale is, ${PRESSURE_UNITS[bench.lesson.unit].label}`}
          word="Take full"
          onGive={take('full')}
        />
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

/** Zero and span of a vacuum gauge. */
export function VacuumKeys({ bench, onDo }: Props) {
  const [answer, setAnswer] = useState('');
  const unit = PRESSURE_UNITS[bench.lesson.unit].label;
  return (
    <Sheet title="Zero and span" aside={answer === '' ? undefined : <span role="status">{answer}</span>}>
      <Stack sx={{ gap: 1 }}>
        <Button
          variant="outlined"
          onClick={() => setAnswer(onDo({ do: 'gauge zero' }) ?? '')}
          sx={{ alignSelf: 'flex-start' }}
        >
          Take this for no pressure
        </Button>
        <NumberAct
          label={`It is, ${unit}`}
          word="Set span"
          onGive={(said) => setAnswer(onDo({ do: 'gauge span', said }) ?? '')}
        />
      </Stack>
    </Sheet>
  );
}
