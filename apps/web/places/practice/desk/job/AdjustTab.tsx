'use client';
/** The log of an adjustment, with what to set next: as in a job, from what is logged. */
import { hasScrews, sequenceOf } from '@barys/core/adjust';
import { formatFixed } from '@barys/core/text';
import type { Act, PracticeBench } from '@barys/rig/practice';
import { adviceOnRun, screwsAfter } from '@barys/store/advice';
import { openPoints } from '@barys/store/evaluation';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState, type SyntheticEvent } from 'react';
import { NextSetting } from '@/places/jobs/advice/NextSetting';
import { Sequence } from '@/places/jobs/advice/Sequence';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { figuresOfRun } from '@/ui/figures';
import { readNumber } from '@/ui/readNumber';
import { Sheet } from '@/ui/Sheet';
import { useTyped } from '@/ui/useTyped';
import { deskName } from '../useBench';
import { bodyOf, runOf } from './lessonRun';

type Log = Extract<Act, { readonly do: 'log' }>;

export function AdjustTab({
  bench,
  onDo,
  onAsLeft,
}: {
  bench: PracticeBench;
  onDo: (act: Act) => string | null;
  onAsLeft: () => void;
}) {
  const run = runOf(bench, 'as found');
  const body = bodyOf(bench);
  const { lrv, urv } = bench.lesson.range;
  const logged = bench.done.flatMap(({ act }) => (act.do === 'log' ? [act] : []));
  const advice = openPoints(run).length > 0 ? null : adviceOnRun(run, body, false);
  const figures = figuresOfRun(run.madeWith);
  const moves = logged.map(({ screw, before, after }) => ({
    kind: screw,
    atApplied: screw === 'zero' ? lrv : urv,
    before,
    after,
  }));
  const screws = advice === null || !hasScrews(body) ? null : screwsAfter(run, advice, moves);
  const steps = sequenceOf(bench.lesson.second === null ? 'gauge' : 'vacuum', body);
  const [now, setNow] = useState<{ readonly at: Log['screw']; readonly reading: number } | undefined>();
  return (
    <Stack sx={{ gap: 1.5 }}>
      <Sheet title="Log what was done">
        {steps !== null && <Sequence steps={steps} made={[]} />}
        {screws !== null && (
          <NextSetting
            screws={screws}
            now={now}
            applied={{
              zero: `${figures.input(lrv)} ${figures.inputUnit}`,
              span: `${figures.input(urv)} ${figures.inputUnit}`,
            }}
            output={{ unit: figures.outputUnit, decimals: 3 }}
            spanScrew={body.technology === 'pneumatic' ? 'range wheel' : 'span screw'}
          />
        )}
        {hasScrews(body) ? (
          <LogForm
            name={`${deskName(bench.lesson, bench.seed)} log`}
            unit={figures.outputUnit}
            onLog={onDo}
            onReading={setNow}
          />
        ) : (
          <Typography variant="body2" sx={{ mb: 1 }}>
            It has no screws that pull on each other: what it is told stands in the record by itself.
          </Typography>
        )}
        <Button variant="outlined" onClick={onAsLeft} sx={{ mt: 1 }}>
          Begin as left
        </Button>
      </Sheet>
      {logged.length > 0 && (
        <Sheet title="Adjustments">
          <DataTable
            label="Adjustments of this lesson"
            rows={logged.map((one, place) => ({ ...one, place }))}
            keyOf={({ place }) => place}
            columns={[
              ['Screw', ({ screw }) => screw],
              ['Before', ({ before }) => <Figure>{formatFixed(before, 3)}</Figure>, 'right'],
              ['After', ({ after }) => <Figure>{formatFixed(after, 3)}</Figure>, 'right'],
            ]}
          />
        </Sheet>
      )}
    </Stack>
  );
}

/** What one screw was set from and to; while the reading before is typed, what to set is worked out from it. */
function LogForm({
  name,
  unit,
  onLog,
  onReading,
}: {
  /** Under which what is typed stays in this browser until it is logged. */
  name: string;
  unit: string;
  onLog: (act: Log) => void;
  onReading: (now: { readonly at: Log['screw']; readonly reading: number } | undefined) => void;
}) {
  const [{ at, before, after }, change, draft] = useTyped({ at: 'span', before: '', after: '' }, name);
  const screw: Log['screw'] = at === 'zero' ? 'zero' : 'span';
  const [error, setError] = useState<string | null>(null);
  const tell = (of: Log['screw'], text: string) => {
    const { value } = readNumber(text);
    onReading(value === null ? undefined : { at: of, reading: value });
  };
  const submit = (event: SyntheticEvent) => {
    event.preventDefault();
    const [from, to] = [readNumber(before), readNumber(after)];
    if (from.value === null || to.value === null) {
      setError(from.error ?? to.error ?? 'Both readings are needed: before the screw was turned, and after.');
      return;
    }
    setError(null);
    onLog({ do: 'log', screw, before: from.value, after: to.value });
    onReading(undefined);
    change({ at: screw === 'zero' ? 'span' : 'zero', before: '', after: '' });
    draft.forget();
  };
  return (
    <Stack component="form" sx={{ gap: 1 }} onSubmit={submit} noValidate>
      <TextField
        select
        label="Screw"
        value={screw}
        onChange={({ target }) => {
          const next = target.value === 'zero' ? 'zero' : 'span';
          change({ at: next });
          tell(next, before);
        }}
      >
        <MenuItem value="zero">zero</MenuItem>
        <MenuItem value="span">span</MenuItem>
      </TextField>
      <Stack direction="row" sx={{ gap: 1 }}>
        <TextField
          label={`Before, ${unit}`}
          value={before}
          onChange={({ target }) => {
            change({ before: target.value });
            tell(screw, target.value);
          }}
          error={error !== null}
          helperText={error}
          slotProps={{ htmlInput: { inputMode: 'decimal' } }}
          autoComplete="off"
        />
        <TextField
          label={`After, ${unit}`}
          value={after}
          onChange={({ target }) => change({ after: target.value })}
          slotProps={{ htmlInput: { inputMode: 'decimal' } }}
          autoComplete="off"
        />
        <Button
          type="submit"
          variant="outlined"
          sx={{ minHeight: 44, alignSelf: 'flex-start', whiteSpace: 'nowrap' }}
        >
          Log it
        </Button>
      </Stack>
    </Stack>
  );
}
