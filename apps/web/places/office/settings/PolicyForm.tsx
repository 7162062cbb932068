'use client';
import type { IntervalPolicy } from '@barys/store/intervals';
import Button from '@mui/material/Button';
import { Draft } from '@/ui/Draft';
import { FieldGrid, unplaced, type FieldSpec } from '@/ui/FieldGrid';
import { Kept } from '@/ui/Kept';
import { Refused } from '@/ui/Refused';
import { useIsMounted } from '@/ui/useIsMounted';
import { useSubmit } from '@/ui/useSubmit';
import { useTyped } from '@/ui/useTyped';
import { setPolicyAction } from './actions';

/** What is asked of the intervals of one criticality. */
export function PolicyForm({ policy: { criticality, target, longestMonths } }: { policy: IntervalPolicy }) {
  const [fields, change, draft] = useTyped(
    // A target of two decimals of per cent, without the noise of the binary product.
    { target: String(Number((target * 100).toFixed(2))), longestMonths: String(longestMonths) },
    `interval policy ${criticality}`,
  );
  const { answer, isKept, isPending, form } = useSubmit(setPolicyAction);
  const isMounted = useIsMounted();
  const specs: readonly FieldSpec<'target' | 'longestMonths'>[] = [
    { name: 'target', label: `${criticality}: found inside, %`, kind: 'number', width: 5 },
    { name: 'longestMonths', label: 'Longest interval, months', kind: 'number', width: 5 },
  ];
  return (
    <form {...form(() => ({ criticality, ...fields }), draft.forget)} style={{ marginBottom: 12 }}>
      <Draft draft={draft} />
      <FieldGrid specs={specs} fields={fields} change={change} answer={answer} />
      <Button type="submit" disabled={isPending || !isMounted} aria-label={`Keep for ${criticality}`}>
        Keep
      </Button>
      <Kept isKept={isKept} />
      <Refused answer={unplaced(specs, answer)} />
    </form>
  );
}
