'use client';
import type { Question } from '@barys/store/jobs';
import type { LeakBasis } from '@barys/store/shapes';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { connectAction } from '@/places/jobs/actions/connect';
import { Caution, SITE_RULES_FIRST } from '@/places/jobs/Caution';
import { LeakFields } from '@/places/jobs/LeakFields';
import { Columns } from '@/ui/Columns';
import { ConnectionDrawing, type ConnectionKind } from '@/ui/ConnectionDrawing';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { asItStands, useSubmit } from '@/ui/useSubmit';
import { ChecksSheet, MoreSheet, PlaceSheet, type Display } from './ConnectSheets';
import { ReferencePick, type ReferenceChoice } from './ReferencePick';

interface ConnectFormProps {
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
}: ConnectFormProps) {
  const { answer, isPending, form } = useSubmit(connectAction, `connect ${job}`);
  const [barometer, setBarometer] = useState('');
  const best = pressure.find(({ unfit }) => unfit === null);
  return (
    <form {...form(asItStands)} noValidate>
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
          <ChecksSheet questions={questions} leak={leak} />
          <PlaceSheet onBarometer={setBarometer} />
          <LeakFields basis={leak} unit={inputUnit} barometer={barometer} />
          <MoreSheet pressure={pressure} isSmart={isSmart} display={display} />
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
