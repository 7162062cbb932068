'use client';
import type { ApiToken } from '@barys/store/people';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { showDate } from '@/server/dates';
import { DataTable } from '@/ui/DataTable';
import { FieldGrid, unplaced, type FieldSpec } from '@/ui/FieldGrid';
import { Figure } from '@/ui/Figure';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { useSubmit } from '@/ui/useSubmit';
import { useTyped } from '@/ui/useTyped';
import { makeTokenAction, revokeTokenAction } from './actions';

const SPECS: readonly FieldSpec<'name' | 'scope' | 'days'>[] = [
  { name: 'name', label: 'What it is for', width: 6 },
  {
    name: 'scope',
    label: 'It may',
    options: [
      ['read', 'read'],
      ['write', 'read and act'],
      ['link', 'stand at a bench as a link'],
    ],
    width: 3,
  },
  { name: 'days', label: 'Days until it expires', kind: 'number', width: 3 },
];

const MAY: Record<ApiToken['scope'], string> = {
  read: 'read',
  write: 'read and act',
  link: 'stand at a bench as a link',
};

const stateOf = (token: ApiToken, now: Date): string =>
  token.revokedAt !== null
    ? 'revoked'
    : token.expiresAt < now
      ? 'expired'
      : `until ${showDate(token.expiresAt)}`;

/** Tokens with which a program acts as this person. */
export function TokenDesk({ tokens, now }: { tokens: readonly ApiToken[]; now: Date }) {
  const router = useRouter();
  const [fields, change] = useTyped({ name: '', scope: 'read', days: '90' });
  const [made, setMade] = useState<string | null>(null);
  const make = useSubmit(async (entry: typeof fields) => {
    const answer = await makeTokenAction(entry);
    setMade(answer.token ?? null);
    router.refresh();
    return answer;
  });
  const revoke = useSubmit(revokeTokenAction);
  return (
    <Sheet title="Tokens for programs" aside="A program with a token acts as you.">
      <form {...make.form(() => fields)}>
        <FieldGrid specs={SPECS} fields={fields} change={change} answer={make.answer} />
        <Button type="submit" variant="outlined" disabled={make.isPending} sx={{ mt: 1.5 }}>
          Make a token
        </Button>
        <Refused answer={unplaced(SPECS, make.answer)} />
      </form>
      {made !== null && (
        <Alert severity="info" variant="outlined" sx={{ my: 1.5 }}>
          Copy it now; it is not shown again:
          <br />
          <Figure sx={{ whiteSpace: 'normal', wordBreak: 'break-all' }}>{made}</Figure>
        </Alert>
      )}
      {tokens.length === 0 ? (
        <Typography variant="body2" sx={{ color: 'text.secondary', mt: 1.5 }}>
          None yet. A program sends one as “Authorization: Bearer …”.
        </Typography>
      ) : (
        <DataTable
          label="Tokens"
          rows={tokens}
          keyOf={({ id }) => id}
          columns={[
            ['For', ({ name }) => name],
            ['May', ({ scope }) => MAY[scope]],
            ['Made', ({ createdAt }) => showDate(createdAt)],
            ['Valid', (token) => stateOf(token, now)],
            [
              'Act',
              ({ id, revokedAt }) =>
                revokedAt === null && (
                  <Button onClick={() => revoke.submit(id)} disabled={revoke.isPending}>
                    Revoke
                  </Button>
                ),
            ],
          ]}
        />
      )}
      <Refused answer={revoke.answer} />
    </Sheet>
  );
}
