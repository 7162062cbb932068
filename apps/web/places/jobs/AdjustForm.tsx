'use client';
import { guardsAt, outputOfDeviation, type Act, type GuardedJob, type NullAt } from '@barys/core/adjust';
import type { SignalRange } from '@barys/core/signal';
import type { AdjustmentKind } from '@barys/store/jobs';
import { guardedAct } from '@barys/store/shapes';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { readNumber } from '@/ui/readNumber';
import { Refused } from '@/ui/Refused';
import { asItStands, useSubmit } from '@/ui/useSubmit';
import { leaveAdjustAction, logAdjustmentAction } from './actions/adjust';
import { GuardLines } from './advice/GuardLines';
import { NextSetting, screwAdvice, type OutputShown, type Screws } from './advice/NextSetting';
import { endOfKind, plannedStep, type PlannedStep } from './advice/plan';
import { ADJUSTMENT_WORD } from './words';

interface End {
  readonly applied: string;
  readonly aim: string;
  /** What the last run read there, or nothing. */
  readonly before: string;
}
export type AdjustEnds = Readonly<Record<PlannedStep['end'], End>>;

/** What the output is read with: itself, or as a deviation from an end that a null meter is set to. */
const READ_WITH = { output: null, 'null at 0 %': 0, 'null at 100 %': 100 } as const satisfies Record<
  string,
  NullAt | null
>;
type ReadWith = keyof typeof READ_WITH;
const READ_WITH_WORD: Record<ReadWith, string> = {
  output: 'The output itself',
  'null at 0 %': 'Null meter, nothing at 0 %',
  'null at 100 %': 'Null meter, nothing at 100 %',
};

interface Fields {
  readonly kind: AdjustmentKind;
  readonly at: string;
  readonly before: string;
  readonly after: string;
  readonly note: string;
  readonly readWith: ReadWith;
  readonly nullUnit: 'output unit' | '% of span';
}

/** Kinds that are made at an end of the range. */
const HAS_AIM: ReadonlySet<AdjustmentKind> = new Set(['zero', 'span', 'sensor trim', 'output trim']);

/** @param isFirst whether the last run is still what the instrument reads before it: not once something was turned */
const fresh = (
  { kind, end }: PlannedStep,
  ends: AdjustEnds,
  isFirst: boolean,
): Omit<Fields, 'readWith' | 'nullUnit'> => {
  const { applied, before } = ends[end];
  return { kind, at: applied, before: isFirst ? before : '', after: '', note: '' };
};

export interface AdjustFormProps {
  readonly job: number;
  readonly inputUnit: string;
  readonly output: OutputShown;
  readonly range: SignalRange;
  readonly ends: AdjustEnds;
  /** How many are logged in this pass; the form begins anew after each. */
  readonly madeCount: number;
  /** What is to be adjusted; null where nothing was advised or said. */
  readonly act: Act | null;
  /** Null where zero and span do not pull on each other, or were not read at both ends. */
  readonly screws: Screws | null;
  readonly guarded: GuardedJob;
  /** What sets the span, by its name. */
  readonly spanScrew: string;
}

export function AdjustForm(props: AdjustFormProps) {
  return <AdjustFields key={props.madeCount} {...props} />;
}

/** The step that the form begins with: the screw that is advised, else what the act asks for. */
function firstStep({ act, madeCount, screws }: AdjustFormProps): PlannedStep {
  const next = screws === null ? null : screwAdvice(screws, undefined).next;
  return next === null ? plannedStep(act, madeCount) : { kind: next.screw, end: endOfKind(next.screw) };
}

function AdjustFields(props: AdjustFormProps) {
  const { job, inputUnit, output, range, ends, madeCount, screws, guarded, spanScrew } = props;
  const { answer, isPending, form } = useSubmit(logAdjustmentAction, `adjust ${job} ${madeCount}`);
  const isFirst = madeCount === 0;
  const [end, setEnd] = useState<PlannedStep['end']>(() => firstStep(props).end);
  const [fields, setFields] = useState<Fields>(() => ({
    ...fresh(firstStep(props), ends, isFirst),
    readWith: 'output',
    nullUnit: 'output unit',
  }));
  const { aim, applied } = ends[end];
  const nullAt = READ_WITH[fields.readWith];
  const unit = nullAt === null || fields.nullUnit === 'output unit' ? output.unit : '% of span';
  const text = (name: keyof Fields) => ({
    value: fields[name],
    onChange: ({ target }: { target: { value: string } }) =>
      setFields((before) => ({ ...before, [name]: target.value })),
    autoComplete: 'off',
  });
  const decimal = { htmlInput: { inputMode: 'decimal' as const } };
  const typed = readNumber(fields.before).value;
  const before =
    typed === null
      ? null
      : nullAt === null
        ? typed
        : outputOfDeviation(range, nullAt, fields.nullUnit, typed);
  const at = readNumber(fields.at).value;
  const act = guardedAct(fields.kind);
  const isScrew = screws !== null && (fields.kind === 'zero' || fields.kind === 'span');
  return (
    <form {...form(asItStands)} noValidate>
      <input type="hidden" name="job" value={job} />
      {isScrew ? (
        <NextSetting
          screws={screws}
          now={
            before === null || (fields.kind !== 'zero' && fields.kind !== 'span')
              ? undefined
              : { at: fields.kind, reading: before }
          }
          spanScrew={spanScrew}
          applied={{ zero: `${ends.zero.applied} ${inputUnit}`, span: `${ends.span.applied} ${inputUnit}` }}
          output={output}
        />
      ) : (
        HAS_AIM.has(fields.kind) && (
          <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1.5 }}>
            Aim at {aim} {output.unit} with {applied} {inputUnit} applied.
          </Typography>
        )
      )}
      {act !== null && at !== null && (
        <GuardLines guards={guardsAt(guarded, act, range, { applied: at, before, isMoving: null })} />
      )}
      <Box sx={{ display: 'grid', gap: 1, gridTemplateColumns: { xs: '1fr 1fr', sm: '1.2fr 1fr 1fr 1fr' } }}>
        <TextField
          select
          name="kind"
          label="What"
          value={fields.kind}
          onChange={({ target }) => {
            const kind = target.value as AdjustmentKind;
            setEnd(endOfKind(kind));
            setFields(({ note, readWith, nullUnit }) => ({
              ...fresh({ kind, end: endOfKind(kind) }, ends, isFirst),
              note,
              readWith,
              nullUnit,
            }));
          }}
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
          label={`Before, ${unit}`}
          placeholder={isFirst ? undefined : 'read it again'}
          slotProps={isFirst ? decimal : { ...decimal, inputLabel: { shrink: true } }}
          {...text('before')}
          autoFocus={!isFirst}
        />
        <TextField
          name="afterText"
          label={`After, ${unit}`}
          slotProps={decimal}
          {...text('after')}
          autoFocus={isFirst}
        />
      </Box>
      <Box sx={{ display: 'grid', gap: 1, mt: 1, gridTemplateColumns: { xs: '1fr', sm: '1.2fr 2fr auto' } }}>
        <NullMeter
          fields={fields}
          change={(more) => setFields((so) => ({ ...so, ...more }))}
          output={output.unit}
        />
        <TextField name="description" label="Note (turns, trim, part)" fullWidth {...text('note')} />
        <Button type="submit" variant="outlined" aria-busy={isPending}>
          Log
        </Button>
      </Box>
      <Refused answer={answer} />
    </form>
  );
}

/** What before and after are read with. A deviation is typed with its few digits, in its own unit. */
function NullMeter({
  fields: { readWith, nullUnit },
  change,
  output,
}: {
  fields: Fields;
  change: (more: Partial<Fields>) => void;
  output: string;
}) {
  return (
    <Stack sx={{ gap: 1 }}>
      <TextField
        select
        label="Read at"
        name="readWith"
        value={readWith}
        // What was read at one meter is no reading of another.
        onChange={({ target }) => change({ readWith: target.value as ReadWith, before: '', after: '' })}
        fullWidth
      >
        {(Object.keys(READ_WITH_WORD) as ReadWith[]).map((one) => (
          <MenuItem key={one} value={one}>
            {READ_WITH_WORD[one]}
          </MenuItem>
        ))}
      </TextField>
      {READ_WITH[readWith] !== null && (
        <TextField
          select
          label="It reads in"
          name="nullUnit"
          value={nullUnit}
          onChange={({ target }) => change({ nullUnit: target.value as Fields['nullUnit'] })}
          fullWidth
        >
          <MenuItem value="output unit">{output}</MenuItem>
          <MenuItem value="% of span">% of span</MenuItem>
        </TextField>
      )}
      {READ_WITH[readWith] !== null && (
        <input type="hidden" name="nullAt" value={String(READ_WITH[readWith])} />
      )}
    </Stack>
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
