'use client';
import { SIGNALS } from '@barys/core/signal';
import type { Body } from '@barys/store/registers';
import { TRIMS } from '@barys/store/shapes';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { CheckList } from '@/ui/CheckList';
import { FieldGrid, unplaced } from '@/ui/FieldGrid';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { useSubmit } from '@/ui/useSubmit';
import { useTyped } from '@/ui/useTyped';
import { keepBodyAction } from './actions';
import { BODY_FIELDS, BODY_SPECS, fieldsOfBody, SIGNAL_NAMES } from './fields';

/** A body to enter, or to change. */
export function BodyForm({ body }: { body: Body | null }) {
  const [fields, change] = useTyped(body === null ? BODY_FIELDS : fieldsOfBody(body));
  const [outputs, setOutputs] = useState<readonly string[]>(body?.outputs ?? ['mA-4-20']);
  const [trims, setTrims] = useState<readonly string[]>(body?.trims ?? []);
  const { answer, isPending, submit } = useSubmit(keepBodyAction);
  return (
    <form
      method="post"
      onSubmit={(event) => {
        event.preventDefault();
        const edited = body === null ? null : { id: body.id, revision: body.revision };
        submit({ edited, fields, outputs: [...outputs], trims: [...trims] });
      }}
    >
      <Sheet title={body === null ? 'A new body' : 'Change this body'}>
        <FieldGrid specs={BODY_SPECS} fields={fields} change={change} answer={answer} />
        <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: '1fr 1fr' }, gap: 2, my: 1.5 }}>
          <CheckList
            label="Outputs"
            options={SIGNAL_NAMES.map((name) => [name, SIGNALS[name].label])}
            chosen={outputs}
            choose={setOutputs}
          />
          <CheckList
            label="What can be turned or trimmed"
            options={TRIMS.map((trim) => [trim, trim])}
            chosen={trims}
            choose={setTrims}
          />
        </Box>
        <Button type="submit" variant="contained" aria-busy={isPending}>
          {body === null ? 'Add the body' : 'Keep the changes'}
        </Button>
        <Refused answer={unplaced(BODY_SPECS, answer)} />
      </Sheet>
    </form>
  );
}
