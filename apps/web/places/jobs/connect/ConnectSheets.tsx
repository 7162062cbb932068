'use client';
/** The sheets of Connect: what was checked, where it is done, what else is read. */
import type { Question } from '@barys/store/jobs';
import { CONNECT_CHECKS, SECOND_INDICATIONS, WORK_PLACES, type LeakBasis } from '@barys/store/shapes';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import Radio from '@mui/material/Radio';
import RadioGroup from '@mui/material/RadioGroup';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Asked } from '@/places/jobs/AskedForm';
import { checkInWords, PLACE_WORD } from '@/places/jobs/words';
import { Row } from '@/ui/Row';
import { ScaleUnitField } from '@/ui/ScaleUnitField';
import { Sheet } from '@/ui/Sheet';
import type { ReferenceChoice } from './ReferencePick';

const AMBIENT = [
  { name: 'temperatureC', label: 'Temperature, °C', usual: '20' },
  { name: 'humidityPercent', label: 'Humidity, %', usual: '50' },
  { name: 'barometerHpa', label: 'Barometer, hPa', usual: '1013' },
] as const;

const shrunk = { htmlInput: { inputMode: 'decimal' as const }, inputLabel: { shrink: true } };

export interface Display {
  readonly unit: string;
  readonly low: number;
  readonly high: number;
}

function SecondUnit({ usual }: { usual: string }) {
  const [unit, setUnit] = useState(usual);
  return (
    <Box sx={{ minWidth: 120 }}>
      <ScaleUnitField name="secondUnit" label="Unit" unit={unit} onUnit={setUnit} units={null} />
    </Box>
  );
}

/** What a second indication shows over the range, and its own tolerance, by which it is judged. */
function SecondScaleFields({ indication, display }: { indication: string; display: Display }) {
  const isOwn = indication === 'own display';
  const shown = (value: number | string) => (isOwn ? String(value) : '');
  return (
    <Box key={indication}>
      <Row>
        <TextField
          name="secondLow"
          label="It shows at 0 %"
          defaultValue={shown(display.low)}
          slotProps={shrunk}
        />
        <TextField name="secondHigh" label="At 100 %" defaultValue={shown(display.high)} slotProps={shrunk} />
        <SecondUnit usual={shown(display.unit)} />
        <TextField name="secondTolerance" label="Tolerance, %" placeholder="1" slotProps={shrunk} />
      </Row>
      <Typography variant="body2" sx={{ color: 'text.secondary', mt: 0.5 }}>
        Without scale and tolerance it is noted and not judged.
      </Typography>
    </Box>
  );
}

/** What has to be so before the first point, and what the procedure asks. */
export function ChecksSheet({ questions, leak }: { questions: readonly Question[]; leak: LeakBasis }) {
  return (
    <Sheet title="Before the first point">
      {CONNECT_CHECKS.map((check, index) => (
        <FormControlLabel
          key={check}
          sx={{ display: 'flex', minHeight: 44, my: -0.25 }}
          control={<Checkbox name="checks" value={check} autoFocus={index === 0} />}
          label={checkInWords(check, leak.kind)}
        />
      ))}
      <Stack sx={{ gap: 1, mt: questions.length === 0 ? 0 : 1 }}>
        {questions.map((question) => (
          <Asked key={question.key} question={question} />
        ))}
      </Stack>
      <TextField name="note" label="If one is left out: why" fullWidth sx={{ mt: 1 }} />
    </Sheet>
  );
}

/** Where the readings are taken, and in which air. */
export function PlaceSheet({ onBarometer }: { onBarometer: (text: string) => void }) {
  return (
    <Sheet title="Where, and in which air">
      <RadioGroup row name="place" defaultValue="on site" aria-label="Where the readings are taken">
        {WORK_PLACES.map((place) => (
          <FormControlLabel
            key={place}
            value={place}
            control={<Radio />}
            label={PLACE_WORD[place]}
            sx={{ minHeight: 44 }}
          />
        ))}
      </RadioGroup>
      <Row>
        {AMBIENT.map(({ name, label, usual }) => (
          <TextField
            key={name}
            name={name}
            label={label}
            placeholder={usual}
            onChange={({ target }) => {
              if (name === 'barometerHpa') onBarometer(target.value);
            }}
            autoComplete="off"
            slotProps={shrunk}
          />
        ))}
      </Row>
    </Sheet>
  );
}

interface Beside {
  readonly pressure: readonly ReferenceChoice[];
  readonly isSmart: boolean;
  /** Scale of the instrument's own display. */
  readonly display: Display;
}

/** What most connections do without. */
export function MoreSheet(props: Beside) {
  const [more, setMore] = useState(false);
  return (
    <>
      <Button onClick={() => setMore(!more)} aria-expanded={more} sx={{ alignSelf: 'flex-start', px: 0 }}>
        Height difference, second standard, second indication
      </Button>

      <Sheet sx={{ display: more ? 'block' : 'none' }}>
        <Stack sx={{ gap: 1.5 }}>
          <HeadFields />
          <BesideFields {...props} />
        </Stack>
      </Sheet>
    </>
  );
}

function HeadFields() {
  return (
    <Row>
      <TextField
        name="heightM"
        label="Instrument above the standard, m"
        helperText="Below it: with a minus"
        autoComplete="off"
        fullWidth
        slotProps={shrunk}
      />
      <TextField
        name="liquidDensityKgPerM3"
        label="Liquid in the line, kg/m³"
        helperText="Water 998; empty for gas"
        autoComplete="off"
        fullWidth
        slotProps={shrunk}
      />
    </Row>
  );
}

function BesideFields({ pressure, isSmart, display }: Beside) {
  const [second, setSecond] = useState('');
  return (
    <>
      <TextField select name="secondReference" label="Second standard for part of the points" defaultValue="">
        <MenuItem value="" sx={{ minHeight: 44 }}>
          none
        </MenuItem>
        {pressure.map(({ id, tag: standard, about, unfit }) => (
          <MenuItem key={id} value={String(id)} sx={{ minHeight: 44 }}>
            {standard} {about}
            {unfit === null ? '' : `; alone it does not fit: ${unfit}`}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        select
        name="secondIndication"
        label="Read beside the output"
        value={second}
        onChange={({ target }) => setSecond(target.value)}
      >
        <MenuItem value="" sx={{ minHeight: 44 }}>
          nothing else
        </MenuItem>
        {SECOND_INDICATIONS.map((one) => (
          <MenuItem key={one} value={one} sx={{ minHeight: 44 }}>
            {one}
          </MenuItem>
        ))}
      </TextField>
      {second !== '' && <SecondScaleFields indication={second} display={display} />}
      {isSmart && (
        <FormControlLabel
          control={<Checkbox name="readsDigital" value="yes" />}
          label="Read the digital value at each point too"
        />
      )}
    </>
  );
}
