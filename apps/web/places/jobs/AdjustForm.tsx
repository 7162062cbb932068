'use client';
import { guardsAt, outputOfDeviation, type Act, type GuardedJob, type NullAt } from '@barys/core/adjust';
import type { SignalRange } from '@barys/core/signal';
import type { AdjustmentKind } from '@barys/store/jobs';
import type { ReceiverTrim } from '@barys/store/runs';
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
import { ToReceiver } from './loop/ToReceiver';
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
  /** Receivers of the loop that is checked; none in another job. */
  readonly receivers: readonly ReceiverTrim[];
}

export function AdjustForm(props: AdjustFormProps) {
  return <AdjustFields key={props.madeCount} {...props} />;
}

/** The step that the form begins with: the screw that is advised, else what the act asks for. */
function firstStep({ act, madeCount, screws }: AdjustFormProps): PlannedStep {
  const next = screws === null ? null : screwAdvice(screws, undefined).next;
  return next === null ? plannedStep(act, madeCount) : { kind: next.screw, end: endOfKind(next.screw) };
}

/** What is typed into the form, and what it comes to. */
function useAdjustFields(props: AdjustFormProps) {
  const { ends, madeCount, output, range } = props;
  const isFirst = madeCount === 0;
  const [end, setEnd] = useState<PlannedStep['end']>(() => firstStep(props).end);
  const [fields, setFields] = useState<Fields>(() => ({
    ...fresh(firstStep(props), ends, isFirst),
    readWith: 'output',
    nullUnit: 'output unit',
  }));
  const change = (more: Partial<Fields>) => setFields((so) => ({ ...so, ...more }));
  const nullAt = READ_WITH[fields.readWith];
  const typed = readNumber(fields.before).value;
  return {
    fields,
    change,
    isFirst,
    end: ends[end],
    unit: nullAt === null || fields.nullUnit === 'output unit' ? output.unit : '% of span',
    /** The output before it and what is applied, where what is typed says them. */
    before:
      typed === null || nullAt === null ? typed : outputOfDeviation(range, nullAt, fields.nullUnit, typed),
    at: readNumber(fields.at).value,
    choose: (kind: AdjustmentKind) => {
      setEnd(endOfKind(kind));
      change(fresh({ kind, end: endOfKind(kind) }, ends, isFirst));
    },
    text: (name: keyof Fields) => ({
      value: fields[name],
      onChange: ({ target }: { target: { value: string } }) => change({ [name]: target.value }),
      autoComplete: 'off',
    }),
  };
}
type Typed = ReturnType<typeof useAdjustFields>;

function AdjustFields(props: AdjustFormProps) {
  const { job, inputUnit, output, madeCount } = props;
  const { answer, isPending, form } = useSubmit(logAdjustmentAction, `adjust ${job} ${madeCount}`);
  const typed = useAdjustFields(props);
  const { fields, text, isFirst, unit } = typed;
  const decimal = { htmlInput: { inputMode: 'decimal' as const } };
  return (
    <form {...form(asItStands)} noValidate>
      <input type="hidden" name="job" value={job} />
      <Guidance {...props} typed={typed} />
      {/* What it is read at stands before what was read: the order in which a draft is put back. */}
      <Stack direction={{ xs: 'column', sm: 'row' }} sx={{ gap: 1 }}>
        <TextField
          select
          name="kind"
          label="What"
          fullWidth
          value={fields.kind}
          onChange={({ target }) => typed.choose(target.value as AdjustmentKind)}
        >
          {(Object.keys(ADJUSTMENT_WORD) as AdjustmentKind[]).map((kind) => (
            <MenuItem key={kind} value={kind}>
              {ADJUSTMENT_WORD[kind]}
            </MenuItem>
          ))}
        </TextField>
        <NullMeter fields={fields} change={typed.change} output={output.unit} />
      </Stack>
      <Box sx={{ display: 'grid', gap: 1, mt: 1, gridTemplateColumns: { xs: '1fr 1fr', sm: '1fr 1fr 1fr' } }}>
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
      {props.receivers.length > 0 && <ToReceiver receivers={props.receivers} />}
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

/** Where to aim, or to set the next screw, and what speaks against it. */
function Guidance({
  inputUnit,
  output,
  range,
  ends,
  screws,
  guarded,
  spanScrew,
  typed: { fields, before, at, end },
}: AdjustFormProps & { typed: Typed }) {
  const act = guardedAct(fields.kind);
  const screw = fields.kind === 'zero' || fields.kind === 'span' ? fields.kind : null;
  return (
    <>
      {screws !== null && screw !== null ? (
        <NextSetting
          screws={screws}
          now={before === null ? undefined : { at: screw, reading: before }}
          spanScrew={spanScrew}
          applied={{ zero: `${ends.zero.applied} ${inputUnit}`, span: `${ends.span.applied} ${inputUnit}` }}
          output={output}
        />
      ) : (
        HAS_AIM.has(fields.kind) && (
          <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1.5 }}>
            Aim at {end.aim} {output.unit} with {end.applied} {inputUnit} applied.
          </Typography>
        )
      )}
      {act !== null && at !== null && (
        <GuardLines guards={guardsAt(guarded, act, range, { applied: at, before, isMoving: null })} />
      )}
    </>
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
    <>
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
    </>
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
