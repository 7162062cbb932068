'use client';
import type { ConnectCheck } from '@barys/store';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import Radio from '@mui/material/Radio';
import RadioGroup from '@mui/material/RadioGroup';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Columns } from '@/ui/Columns';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { useAct } from '@/ui/useAct';
import { connectAction } from './actions';
import { Caution, SITE_RULES_FIRST } from './Caution';
import { CHECK_WORD } from './words';

export interface ReferenceChoice {
  readonly id: number;
  readonly tag: string;
  readonly about: string;
  readonly ratio: string | null;
  readonly dueOn: string;
  readonly unfit: string | null;
  readonly caution: string | null;
}

function Choice({ choice }: { choice: ReferenceChoice }) {
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', borderTop: '1px solid var(--rule)' }}>
      <FormControlLabel
        value={String(choice.id)}
        control={<Radio size="small" />}
        sx={{ mr: 1, flex: 1, py: 0.25 }}
        label={
          <Box sx={{ lineHeight: 1.25 }}>
            <strong>{choice.tag}</strong> {choice.about}
            <Typography variant="body2" sx={{ color: 'text.secondary' }}>
              {choice.unfit === null
                ? (choice.caution ?? `in date until ${choice.dueOn}`)
                : `does not fit: ${choice.unfit}`}
            </Typography>
          </Box>
        }
      />
      <Typography sx={{ whiteSpace: 'nowrap', color: choice.unfit === null ? 'inherit' : 'text.secondary' }}>
        {choice.ratio ?? '–'}
      </Typography>
    </Box>
  );
}

function ReferencePick({
  name,
  title,
  choices,
}: {
  name: string;
  title: string;
  choices: readonly ReferenceChoice[];
}) {
  const [isOpen, setIsOpen] = useState(false);
  const fitting = choices.filter(({ unfit }) => unfit === null);
  const others = choices.filter(({ unfit }) => unfit !== null);
  const [first] = fitting;
  return (
    <Sheet title={title} aside="accuracy ratio">
      {first === undefined && (
        <Typography>
          None in date fits this range. Another one needs a reason, which the record keeps.
        </Typography>
      )}
      <RadioGroup name={name} defaultValue={first === undefined ? '' : String(first.id)} aria-label={title}>
        {fitting.map((choice) => (
          <Choice key={choice.id} choice={choice} />
        ))}
        {others.length > 0 && (
          <>
            <Button
              onClick={() => setIsOpen(!isOpen)}
              aria-expanded={isOpen}
              sx={{ px: 0, alignSelf: 'flex-start' }}
            >
              {others.length} more {others.length === 1 ? 'does' : 'do'} not fit
            </Button>
            {isOpen && others.map((choice) => <Choice key={choice.id} choice={choice} />)}
          </>
        )}
      </RadioGroup>
    </Sheet>
  );
}

const AMBIENT = [
  { name: 'temperatureC', label: 'Temperature, °C', usual: '20' },
  { name: 'humidityPercent', label: 'Humidity, %', usual: '50' },
  { name: 'barometerHpa', label: 'Barometer, hPa', usual: '1013' },
] as const;

export function ConnectForm({
  job,
  pressure,
  meters,
}: {
  job: number;
  pressure: readonly ReferenceChoice[];
  meters: readonly ReferenceChoice[];
}) {
  const { answer, isPending, onSubmit } = useAct(connectAction);
  return (
    <form onSubmit={onSubmit} noValidate>
      <input type="hidden" name="job" value={job} />
      <Columns columns="1.1fr 1fr">
        <Stack sx={{ gap: 1.5 }}>
          <ReferencePick name="pressureReference" title="Pressure reference" choices={pressure} />
          <ReferencePick name="meter" title="Meter for the output" choices={meters} />
          <TextField name="referenceReason" label="If one that does not fit is used: why" fullWidth />
        </Stack>
        <Stack sx={{ gap: 1.5 }}>
          <Sheet title="Before the first point">
            {(Object.keys(CHECK_WORD) as ConnectCheck[]).map((check, index) => (
              <FormControlLabel
                key={check}
                sx={{ display: 'flex', minHeight: 44 }}
                control={<Checkbox name="checks" value={check} autoFocus={index === 0} />}
                label={CHECK_WORD[check]}
              />
            ))}
            <TextField name="note" label="If one is left out: why" fullWidth sx={{ mt: 1 }} />
          </Sheet>
          <Sheet title="Ambient conditions">
            <Stack sx={{ gap: 1.5, flexDirection: { xs: 'column', sm: 'row' } }}>
              {AMBIENT.map(({ name, label, usual }) => (
                <TextField
                  key={name}
                  name={name}
                  label={label}
                  placeholder={usual}
                  autoComplete="off"
                  slotProps={{ htmlInput: { inputMode: 'decimal' }, inputLabel: { shrink: true } }}
                />
              ))}
            </Stack>
          </Sheet>
          <Caution>Never vent or disconnect under pressure. {SITE_RULES_FIRST}</Caution>
          <div>
            <Button type="submit" variant="contained" size="large" disabled={isPending}>
              Connected, begin as found
            </Button>
            <Refused answer={answer} />
          </div>
        </Stack>
      </Columns>
    </form>
  );
}
