'use client';
import type { Person } from '@barys/store/people';
import { ROLES } from '@barys/store/shapes';
import Button from '@mui/material/Button';
import { Draft } from '@/ui/Draft';
import { FieldGrid, unplaced, type FieldSpec } from '@/ui/FieldGrid';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { useSubmit } from '@/ui/useSubmit';
import { useTyped } from '@/ui/useTyped';
import { keepPersonAction, type PersonFields } from './actions';

const SPECS: readonly FieldSpec<keyof PersonFields>[] = [
  { name: 'name', label: 'Name', width: 6 },
  { name: 'role', label: 'Role', options: ROLES, width: 3 },
  { name: 'state', path: 'isActive', label: 'State', options: ['works here', 'has left'], width: 3 },
  { name: 'login', label: 'Login', width: 6, help: 'Empty: does not sign in' },
  {
    name: 'safety',
    label: 'Intervals of safety functions',
    options: ['does not change them', 'is entrusted with them'],
    width: 6,
  },
  {
    name: 'password',
    label: 'New password',
    kind: 'password',
    width: 6,
    autoComplete: 'new-password',
    help: 'Empty: as it is. To be changed by the person at once',
  },
];

const SECRET = ['password'] as const;

/** A person to enter, or to change. */
export function PersonForm({ person }: { person: Person | null }) {
  const [fields, change, draft] = useTyped<PersonFields & Record<string, string>>(
    {
      name: person?.name ?? '',
      role: person?.role ?? 'technician',
      login: person?.login ?? '',
      state: person === null || person.isActive ? 'works here' : 'has left',
      safety: person?.decidesSafety === true ? 'is entrusted with them' : 'does not change them',
      password: '',
    },
    `person ${person?.id ?? 'new'}`,
    SECRET,
  );
  const { answer, isPending, form } = useSubmit(keepPersonAction);
  return (
    <form {...form(() => ({ id: person?.id ?? null, fields }), draft.forget)}>
      <Sheet
        title={person === null ? 'Add a person' : `Change ${person.name}`}
        aside="A change of role, login or password ends the person's sessions."
      >
        <Draft draft={draft} />
        <FieldGrid specs={SPECS} fields={fields} change={change} answer={answer} />
        <Button type="submit" variant="contained" aria-busy={isPending} sx={{ mt: 1.5 }}>
          {person === null ? 'Add the person' : 'Keep the changes'}
        </Button>
        <Refused answer={unplaced(SPECS, answer)} />
      </Sheet>
    </form>
  );
}
