'use client';
import type { AdjustmentKind } from '@barys/store/jobs';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Refused } from '@/ui/Refused';
import { asItStands, useSubmit } from '@/ui/useSubmit';
import { leaveAdjustAction, logAdjustmentAction } from './actions/adjust';
import { ADJUSTMENT_WORD } from './words';

interface End {
  readonly applied: string;
  readonly aim: string;
  /** What the last run read there, or nothing. */
  readonly before: string;
}

type Fields = { kind: AdjustmentKind; at: string; before: string; after: string; note: string };

/** Kinds that are made at an end of the range. */
const HAS_AIM: ReadonlySet<AdjustmentKind> = new Set(['zero', 'span', 'sensor trim', 'output trim']);

/** The end of the range where a kind of adjustment is made. */
const endOf = (kind: AdjustmentKind, ends: { zero: End; span: End }): End =>
  kind === 'span' ? ends.span : ends.zero;

/** @param isFirst whether the last run is still what the instrument reads before it: not once something was turned */
const fresh = (kind: AdjustmentKind, ends: { zero: End; span: End }, isFirst: boolean): Fields => {
  const { applied, before } = endOf(kind, ends);
  return { kind, at: applied, before: isFirst ? before : '', after: '', note: '' };
};

export function AdjustForm({
  job,
  inputUnit,
  outputUnit,
  ends,
  madeCount,
}: {
  job: number;
  inputUnit: string;
  outputUnit: string;
  ends: { zero: End; span: End };
  /** How many are logged in this pass; the form begins anew after each. */
  madeCount: number;
}) {
  // Zero comes first, span after it.
  return (
    <AdjustFields
      key={madeCount}
      job={job}
      inputUnit={inputUnit}
      outputUnit={outputUnit}
      ends={ends}
      first={madeCount % 2 === 0 ? 'zero' : 'span'}
      madeCount={madeCount}
    />
  );
}

function AdjustFields({
  job,
  inputUnit,
  outputUnit,
  ends,
  first,
  madeCount,
}: {
  job: number;
  inputUnit: string;
  outputUnit: string;
  ends: { zero: End; span: End };
  first: AdjustmentKind;
  madeCount: number;
}) {
  const { answer, isPending, form } = useSubmit(logAdjustmentAction, `adjust ${job} ${madeCount}`);
  const isFirst = madeCount === 0;
  const [fields, setFields] = useState<Fields>(() => fresh(first, ends, isFirst));
  const aim = endOf(fields.kind, ends).aim;
  const text = (name: keyof Fields) => ({
    value: fields[name],
    onChange: ({ target }: { target: { value: string } }) =>
      setFields((before) => ({ ...before, [name]: target.value })),
    autoComplete: 'off',
  });
  const decimal = { htmlInput: { inputMode: 'decimal' as const } };
  return (
    <form {...form(asItStands)} noValidate>
      <input type="hidden" name="job" value={job} />
      {HAS_AIM.has(fields.kind) && (
        <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1.5 }}>
          Aim at {aim} {outputUnit} with {endOf(fields.kind, ends).applied} {inputUnit} applied.
        </Typography>
      )}
      <Box sx={{ display: 'grid', gap: 1, gridTemplateColumns: { xs: '1fr 1fr', sm: '1.2fr 1fr 1fr 1fr' } }}>
        <TextField
          select
          name="kind"
          label="What"
          value={fields.kind}
          onChange={({ target }) =>
            setFields(({ note }) => ({ ...fresh(target.value as AdjustmentKind, ends, isFirst), note }))
          }
        >
          {(Object.keys(ADJUSTMENT_WORD) as AdjustmentKind[]).map((kind) => (
            <MenuItem key={kind} value={kind}>
              {ADJUSTMENT_WORD[kind]}
            </MenuItem>
          ))}
        </TextField>
        <TextField name="atAppliedText" label={`Applied, ${inputUnit}`} slotProps={decimal} {...text('at')} />
        <TextField
          name="beforeText"
          label={`Before, ${outputUnit}`}
          placeholder={isFirst ? undefined : 'read it again'}
          slotProps={isFirst ? decimal : { ...decimal, inputLabel: { shrink: true } }}
          {...text('before')}
          autoFocus={!isFirst}
        />
        <TextField
          name="afterText"
          label={`After, ${outputUnit}`}
          slotProps={decimal}
          {...text('after')}
          autoFocus={isFirst}
        />
      </Box>
      <Stack direction="row" sx={{ gap: 1, mt: 1 }}>
        <TextField name="description" label="Note (turns, trim, part)" fullWidth {...text('note')} />
        <Button type="submit" variant="outlined" aria-busy={isPending}>
          Log
        </Button>
      </Stack>
      <Refused answer={answer} />
    </form>
  );
}

/** On to the as-left run, or back where nothing was touched. */
export function LeaveAdjust({
  job,
  word,
  isAnythingDone,
  canGoBack,
}: {
  job: number;
  /** What comes next, in words. */
  word: string;
  isAnythingDone: boolean;
  canGoBack: boolean;
}) {
  const { answer, isPending, form } = useSubmit(leaveAdjustAction);
  return (
    <form {...form(asItStands)}>
      <input type="hidden" name="job" value={job} />
      <Stack direction="row" sx={{ gap: 1, mt: 1.5 }}>
        <Button
          type="submit"
          name="to"
          value="as-left"
          variant="contained"
          disabled={isPending || !isAnythingDone}
        >
          {word}
        </Button>
        {canGoBack && (
          <Button type="submit" name="to" value="judge" aria-busy={isPending}>
            Nothing was touched, back to Judge
          </Button>
        )}
      </Stack>
      <Refused answer={answer} />
    </form>
  );
}
