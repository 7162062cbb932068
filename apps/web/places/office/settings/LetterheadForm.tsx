'use client';
import type { Letterhead } from '@barys/store/people';
import Button from '@mui/material/Button';
import { Draft } from '@/ui/Draft';
import { FieldGrid, unplaced, type FieldSpec } from '@/ui/FieldGrid';
import { Kept } from '@/ui/Kept';
import { Refused } from '@/ui/Refused';
import { useIsMounted } from '@/ui/useIsMounted';
import { useSubmit } from '@/ui/useSubmit';
import { useTyped } from '@/ui/useTyped';
import { setLetterheadAction } from './actions';

const SPECS: readonly FieldSpec<keyof Letterhead>[] = [
  { name: 'laboratory', label: 'Laboratory or workshop that calibrates' },
  { name: 'customer', label: 'Customer', help: 'Empty where the works calibrates for itself.' },
  { name: 'laboratoryAddress', label: 'Its address', kind: 'lines' },
  { name: 'customerAddress', label: 'Address of the customer', kind: 'lines' },
];

export function LetterheadForm({ letterhead }: { letterhead: Letterhead }) {
  const [fields, change, draft] = useTyped({ ...letterhead }, 'letterhead');
  const { answer, isKept, isPending, form } = useSubmit(setLetterheadAction);
  const isMounted = useIsMounted();
  return (
    <form {...form(() => fields, draft.forget)}>
      <Draft draft={draft} />
      <FieldGrid specs={SPECS} fields={fields} change={change} answer={answer} />
      <Button type="submit" variant="contained" disabled={isPending || !isMounted} sx={{ mt: 1.5 }}>
        Keep the letterhead
      </Button>
      <Kept isKept={isKept} />
      <Refused answer={unplaced(SPECS, answer)} />
    </form>
  );
}
