'use client';
import { SIGNALS } from '@barys/core/signal';
import type { Body } from '@barys/store/registers';
import { TRIMS } from '@barys/store/shapes';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { CheckList } from '@/ui/CheckList';
import { Draft } from '@/ui/Draft';
import { FieldGrid, unplaced } from '@/ui/FieldGrid';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { useSubmit } from '@/ui/useSubmit';
import { useTyped } from '@/ui/useTyped';
import { keepBodyAction } from './actions';
import { BODY_FIELDS, BODY_SPECS, fieldsOfBody, SIGNAL_NAMES } from './fields';

/** What is ticked of a list, as one text of the form. */
const listed = (values: readonly string[]): string => values.join('\n');
const listOf = (text: string): string[] => text.split('\n').filter((value) => value !== '');

/** A body to enter, or to change. */
export function BodyForm({ body }: { body: Body | null }) {
  const [{ outputs, trims, ...fields }, change, draft] = useTyped(
    {
      ...(body === null ? BODY_FIELDS : fieldsOfBody(body)),
      outputs: listed(body?.outputs ?? ['mA-4-20']),
      trims: listed(body?.trims ?? []),
    },
    body === null ? 'body' : `body ${body.id} ${body.revision}`,
  );
  const { answer, isPending, form } = useSubmit(keepBodyAction);
  const edited = body === null ? null : { id: body.id, revision: body.revision };
  return (
    <form {...form(() => ({ edited, fields, outputs: listOf(outputs), trims: listOf(trims) }), draft.forget)}>
      <Sheet title={body === null ? 'A new body' : 'Change this body'}>
        <Draft draft={draft} />
        <FieldGrid specs={BODY_SPECS} fields={fields} change={change} answer={answer} />
        <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: '1fr 1fr' }, gap: 2, my: 1.5 }}>
          <CheckList
            label="Outputs"
            options={SIGNAL_NAMES.map((name) => [name, SIGNALS[name].label])}
            chosen={listOf(outputs)}
            choose={(chosen) => change({ outputs: listed(chosen) })}
          />
          <CheckList
            label="What can be turned or trimmed"
            options={TRIMS.map((trim) => [trim, trim])}
            chosen={listOf(trims)}
            choose={(chosen) => change({ trims: listed(chosen) })}
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
