'use client';
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
import { Columns } from '@/ui/Columns';
import { ConnectionDrawing, type ConnectionKind } from '@/ui/ConnectionDrawing';
import { Refused } from '@/ui/Refused';
import { Row } from '@/ui/Row';
import { ScaleUnitField } from '@/ui/ScaleUnitField';
import { Sheet } from '@/ui/Sheet';
import { useAct } from '@/ui/useAct';
import { connectAction } from './actions/connect';
import { Asked } from './AskedForm';
import { Caution, SITE_RULES_FIRST } from './Caution';
import { LeakFields } from './LeakFields';
import { checkInWords, PLACE_WORD } from './words';

export interface ReferenceChoice {
  readonly id: number;
  readonly tag: string;
  readonly about: string;
  readonly ratio: string | null;
  readonly dueOn: string;
  readonly unfit: string | null;
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
              {choice.unfit === null ? `in date until ${choice.dueOn}` : `does not fit: ${choice.unfit}`}
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
  const fitting = choices.filter(({ unfit }) => unfit === null);
  // Where none fits, the weaker ones are what there is to choose from.
  const [isOpen, setIsOpen] = useState(fitting.length === 0);
  const others = choices.filter((choice) => !fitting.includes(choice));
  const [first] = fitting;
  return (
    <Sheet title={title} aside="accuracy ratio">
      {first === undefined && (
        <Typography>
          None alone is good enough for these points. Two may share them (below), or another one is taken with
          a reason, which the record keeps.
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
              {others.length} more {others.length === 1 ? 'is' : 'are'} weaker or{' '}
              {others.length === 1 ? 'does' : 'do'} not fit
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

const shrunk = { htmlInput: { inputMode: 'decimal' as const }, inputLabel: { shrink: true } };

interface Display {
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

export function ConnectForm({
  job,
  pressure,
  meters,
  questions,
  leak,
  inputUnit,
  tag,
  kind,
  isSmart,
  isAgain,
  isDifferential,
  goesBelow,
  isOddSupply,
  display,
}: {
  job: number;
  pressure: readonly ReferenceChoice[];
  /** Null where the output is read by eye. */
  meters: readonly ReferenceChoice[] | null;
  /** Those of the procedure. */
  questions: readonly Question[];
  /** What a leak is judged by. */
  leak: LeakBasis;
  inputUnit: string;
  tag: string;
  kind: ConnectionKind;
  isSmart: boolean;
  /** Whether something was adjusted or set since the readings as found, so that those as left come next. */
  isAgain: boolean;
  isDifferential: boolean;
  /** Whether points lie below the pressure of the air. */
  goesBelow: boolean;
  /** Whether the supply is another one than the usual 24 V. */
  isOddSupply: boolean;
  /** Scale of the instrument's own display. */
  display: Display;
}) {
  const { answer, isPending, onSubmit, ref } = useAct(connectAction, `connect ${job}`);
  const [more, setMore] = useState(false);
  const [barometer, setBarometer] = useState('');
  const [second, setSecond] = useState('');
  const best = pressure.find(({ unfit }) => unfit === null);
  return (
    <form ref={ref} method="post" onSubmit={onSubmit} noValidate>
      <input type="hidden" name="job" value={job} />
      <Columns columns="1.15fr 1fr">
        <Stack sx={{ gap: 1.5 }}>
          <ReferencePick name="pressureReference" title="Pressure reference" choices={pressure} />
          {meters !== null && <ReferencePick name="meter" title="Meter for the output" choices={meters} />}
          <TextField name="referenceReason" label="If one that does not fit is used: why" fullWidth />
          <Sheet title="How it is connected" aside={kind === 'vacuum' ? 'clean, dry, tight' : undefined}>
            <ConnectionDrawing
              kind={kind}
              tag={tag}
              standard={best?.tag ?? ''}
              isSmart={isSmart}
              isDifferential={isDifferential}
              goesBelow={goesBelow}
              isOddSupply={isOddSupply}
            />
          </Sheet>
          <Caution>Never vent or disconnect under pressure. {SITE_RULES_FIRST}</Caution>
        </Stack>
        <Stack sx={{ gap: 1.5 }}>
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
                    if (name === 'barometerHpa') setBarometer(target.value);
                  }}
                  autoComplete="off"
                  slotProps={shrunk}
                />
              ))}
            </Row>
          </Sheet>
          <LeakFields basis={leak} unit={inputUnit} barometer={barometer} />
          <Button onClick={() => setMore(!more)} aria-expanded={more} sx={{ alignSelf: 'flex-start', px: 0 }}>
            Height difference, second standard, second indication
          </Button>
          <Sheet sx={{ display: more ? 'block' : 'none' }}>
            <Stack sx={{ gap: 1.5 }}>
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
              <TextField
                select
                name="secondReference"
                label="Second standard for part of the points"
                defaultValue=""
              >
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
            </Stack>
          </Sheet>
          <div>
            <Button type="submit" variant="contained" size="large" aria-busy={isPending}>
              {isAgain ? 'Connected, begin as left' : 'Connected, begin as found'}
            </Button>
            <Refused answer={answer} />
          </div>
        </Stack>
      </Columns>
    </form>
  );
}
