'use client';
import { INTERVALS } from '@barys/core/interval';
import Button from '@mui/material/Button';
import { Draft } from '@/ui/Draft';
import { FieldGrid, unplaced, type FieldSpec } from '@/ui/FieldGrid';
import { Refused } from '@/ui/Refused';
import { useSubmit } from '@/ui/useSubmit';
import { useTyped } from '@/ui/useTyped';
import { changeIntervalAction } from './actions';

/** Takes an interval, the advised one or another, with the reason. */
export function IntervalForm({
  instrumentId,
  tag,
  now,
  advised,
  cap,
}: {
  instrumentId: number;
  tag: string;
  now: number;
  advised: number;
  cap: number;
}) {
  const [fields, change, draft] = useTyped(
    { months: advised === now ? '' : String(advised), reason: '' },
    `interval ${instrumentId} ${now}`,
  );
  const { answer, isPending, form } = useSubmit(changeIntervalAction);
  const choices = INTERVALS.filter((months) => months <= cap && months !== now);
  const specs: readonly FieldSpec<'months' | 'reason'>[] = [
    {
      name: 'months',
      label: 'New interval',
      options: [
        ['', 'as it is'],
        ...choices.map(
          (months) => [String(months), `${months} months${months === advised ? ', advised' : ''}`] as const,
        ),
      ],
      width: 12,
    },
    { name: 'reason', label: 'Reason', width: 12 },
  ];
  return (
    <form
      {...form(
        () => ({ instrumentId, tag, before: now, months: fields.months, reason: fields.reason }),
        draft.forget,
      )}
      style={{ marginTop: 12 }}
    >
      <Draft draft={draft} />
      <FieldGrid specs={specs} fields={fields} change={change} answer={answer} />
      <Button type="submit" variant="contained" aria-busy={isPending} sx={{ mt: 1.5 }}>
        {fields.months === '' ? 'Take another interval' : `Take ${fields.months} months`}
      </Button>
      <Refused answer={unplaced(specs, answer)} />
    </form>
  );
}
