'use client';
import type { Person } from '@barys/store/people';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { FieldGrid, type FieldSpec } from '@/ui/FieldGrid';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { useSubmit } from '@/ui/useSubmit';
import { useTyped } from '@/ui/useTyped';
import { changePasswordAction, firstStartAction, signInAction, signInToDemoAction } from './actions';

const SIGN_IN: readonly FieldSpec<'login' | 'password'>[] = [
  { name: 'login', label: 'Login', width: 12, autoComplete: 'username' },
  { name: 'password', label: 'Password', kind: 'password', width: 12, autoComplete: 'current-password' },
];

export function SignInForm({ next }: { next: string }) {
  const [fields, change] = useTyped({ login: '', password: '' });
  const [endsOthers, setEndsOthers] = useState(false);
  const { answer, isPending, form } = useSubmit(signInAction);
  return (
    <Sheet title="Sign in" sx={{ maxWidth: 420 }}>
      <form {...form(() => ({ ...fields, next, endsOthers }))}>
        <FieldGrid specs={SIGN_IN} fields={fields} change={change} answer={answer} />
        <FormControlLabel
          sx={{ minHeight: 44, mt: 0.5, display: 'flex' }}
          control={<Checkbox checked={endsOthers} onChange={(_event, isOn) => setEndsOthers(isOn)} />}
          label="Sign me out everywhere else"
        />
        <Button type="submit" variant="contained" aria-busy={isPending} sx={{ mt: 1 }}>
          Sign in
        </Button>
        <Refused answer={answer} />
      </form>
    </Sheet>
  );
}

const WORK: Readonly<Record<Person['role'], string>> = {
  technician: 'calibrates, and keeps the registers',
  reviewer: 'reads records and reviews them',
  planner: 'keeps the registers and opens jobs',
  administrator: 'keeps the people, brings in files',
  auditor: 'reads all, changes nothing',
};

/** One button a person: only the demo has it. */
export function DemoSignIn({ people, next }: { people: readonly Person[]; next: string }) {
  const { answer, isPending, submit } = useSubmit(signInToDemoAction);
  return (
    <Sheet title="This is a demo: sign in as anybody" sx={{ maxWidth: 620 }}>
      <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1.5 }}>
        Every name and figure is invented. A real installation asks for a login and a password.
      </Typography>
      <Stack sx={{ gap: 0.75 }}>
        {people.map(({ id, name, role }) => (
          <Button
            key={id}
            variant="outlined"
            disabled={isPending}
            onClick={() => submit({ person: id, next })}
            sx={{ justifyContent: 'flex-start', gap: 1, textAlign: 'left' }}
          >
            <span>{name}</span>
            <Typography component="span" variant="body2" sx={{ color: 'text.secondary' }}>
              {WORK[role]}
            </Typography>
          </Button>
        ))}
      </Stack>
      <Refused answer={answer} />
    </Sheet>
  );
}

const again = (label: string): readonly FieldSpec<'password' | 'again'>[] => [
  {
    name: 'password',
    label,
    kind: 'password',
    width: 12,
    autoComplete: 'new-password',
    help: 'At least 10 characters',
  },
  { name: 'again', label: 'The same again', kind: 'password', width: 12, autoComplete: 'new-password' },
];

const FIRST_START: readonly FieldSpec<'site' | 'name' | 'login' | 'password' | 'again'>[] = [
  { name: 'site', label: 'Name of the site', width: 12 },
  { name: 'name', label: 'Name of the administrator', width: 12 },
  { name: 'login', label: 'Login', width: 12, autoComplete: 'username' },
  ...again('Password'),
];

/** The first administrator of an empty installation. */
export function FirstStartForm({ needsSite }: { needsSite: boolean }) {
  const [fields, change] = useTyped({
    site: needsSite ? '' : 'this site',
    name: '',
    login: '',
    password: '',
    again: '',
  });
  const { answer, isPending, form } = useSubmit(firstStartAction);
  return (
    <Sheet title="A new installation" sx={{ maxWidth: 480 }}>
      <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1.5 }}>
        There is nobody here yet and no default password. The first person is the administrator, who enters
        the others.
      </Typography>
      <form {...form(() => fields)}>
        <FieldGrid
          specs={FIRST_START.filter(({ name }) => needsSite || name !== 'site')}
          fields={fields}
          change={change}
          answer={answer}
        />
        <Button type="submit" variant="contained" aria-busy={isPending} sx={{ mt: 1.5 }}>
          Begin
        </Button>
        <Refused answer={answer} />
      </form>
    </Sheet>
  );
}

const CHANGE: readonly FieldSpec<'current' | 'password' | 'again'>[] = [
  {
    name: 'current',
    label: 'Password until now',
    kind: 'password',
    width: 12,
    autoComplete: 'current-password',
  },
  ...again('New password'),
];

export function ChangePasswordForm() {
  const [fields, change] = useTyped({ current: '', password: '', again: '' });
  const { answer, isPending, form } = useSubmit(changePasswordAction);
  return (
    <Sheet title="Password" aside="All sessions end, also this one.">
      <form {...form(() => fields)}>
        <FieldGrid specs={CHANGE} fields={fields} change={change} answer={answer} />
        <Button type="submit" variant="contained" aria-busy={isPending} sx={{ mt: 1.5 }}>
          Change the password
        </Button>
        <Refused answer={answer} />
      </form>
    </Sheet>
  );
}
