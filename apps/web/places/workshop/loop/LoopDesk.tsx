'use client';
import { TOLERANCE_SUMS } from '@barys/core/loop';
import { formatFixed } from '@barys/core/text';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Checkbox from '@mui/material/Checkbox';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { arrayMove } from '@dnd-kit/sortable';
import { useState } from 'react';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { NumberField } from '@/ui/NumberField';
import { Sheet } from '@/ui/Sheet';
import { TakeAlong } from '@/ui/TakeAlong';
import { useAddress } from '@/ui/useAddress';
import { keepLoopAction } from '../hand-over/actions';
import { HandOver } from '../hand-over/HandOver';
import { computeLoop, csvOfLoop, LIKELY, noteOfLoop, type LoopResult } from './compute';
import {
  fieldOf,
  itemsOfText,
  MOST_ITEMS,
  newItem,
  orLoopFault,
  textOfItems,
  type ItemFields,
  type LoopFault,
  type LoopFields,
} from './fields';
import { Findings } from './Findings';
import { ItemForm } from './ItemForm';
import { LoopStave } from './LoopStave';

/** What is done to the items of a loop: changed, taken out, moved. */
function itemActs(items: readonly ItemFields[], keep: (next: readonly ItemFields[]) => void) {
  return {
    patch: (id: string, more: Partial<ItemFields>) =>
      keep(items.map((one) => (one.id === id ? { ...one, ...more } : one))),
    remove: (id: string) => {
      const gone = items.find((one) => one.id === id);
      // What read it reads what it read.
      keep(
        items.flatMap((one) =>
          one.id === id ? [] : [one.from === id ? { ...one, from: gone?.from ?? '' } : one],
        ),
      );
    },
    move: (id: string, to: string) => {
      const [from, over] = [id, to].map((one) => items.findIndex((item) => item.id === one));
      if (from !== undefined && over !== undefined && from >= 0 && over >= 0)
        keep(arrayMove([...items], from, over));
    },
  };
}

/** A loop as a chain: expected at every tap, what was read, which item is wrong, and what to measure next. */
export function LoopDesk({ initial }: { initial: LoopFields }) {
  const [fields, change] = useAddress(initial);
  const [open, setOpen] = useState<string | null>(null);
  const items = itemsOfText(fields.items);
  const got = orLoopFault(() => computeLoop(fields));
  const fault = 'message' in got ? got : null;
  const result = 'message' in got ? null : got;
  const keep = (next: readonly ItemFields[]) => change({ items: textOfItems(next) });
  const { patch, remove, move } = itemActs(items, keep);
  const [best] = result?.diagnosis?.suspicions ?? [];
  const suspect = best === undefined || best.probability < LIKELY ? null : best.item;
  const next = result?.next?.item ?? null;
  return (
    <Stack sx={{ gap: 1.5 }}>
      <Sheet
        title="The loop"
        aside={result === null ? undefined : <TakeAlong file="loop.csv" csv={() => csvOfLoop(result)} />}
      >
        <Head
          fields={fields}
          change={change}
          fault={fault}
          unit={items.find(({ from }) => from === '')?.inUnit ?? ''}
        />
        <LoopStave
          rows={items.map((item, place) => ({
            item,
            tap: result?.taps[place] ?? null,
            isSuspect: place === suspect,
            isNext: place === next,
            isOpen:
              open === item.id ||
              (fault?.field?.startsWith(`items.${place}.`) === true &&
                fault.field !== fieldOf(place, 'read')),
            readError: fault?.field === fieldOf(place, 'read') ? fault.message : null,
            onOpen: () => setOpen(open === item.id ? null : item.id),
            onRead: (read) => patch(item.id, { read }),
            children: (
              <ItemForm
                items={items}
                place={place}
                fault={fault}
                onChange={(more) => patch(item.id, more)}
                onRemove={() => remove(item.id)}
              />
            ),
          }))}
          onMove={move}
          onGrab={() => setOpen(null)}
        />
        <Button
          onClick={() => keep([...items, newItem(items)])}
          disabled={items.length >= MOST_ITEMS}
          sx={{ mt: 1 }}
        >
          Add an item
        </Button>
        {fault !== null && (
          <Typography role="alert" sx={{ color: 'var(--outside)', fontWeight: 600, mt: 1 }}>
            {fault.message} What you typed is still there.
          </Typography>
        )}
      </Sheet>
      {result !== null && <Outcome fields={fields} change={change} result={result} />}
    </Stack>
  );
}

/** What it comes to, and where it goes. */
function Outcome({
  fields,
  change,
  result,
}: {
  fields: LoopFields;
  change: (patch: Partial<LoopFields>) => void;
  result: LoopResult;
}) {
  return (
    <>
      <Roots result={result} />
      <Findings result={result} />
      <Tolerances result={result} />
      <HandOver
        tag={fields.tag}
        onTag={(tag) => change({ tag })}
        configuration={null}
        note={noteOfLoop(result)}
        version={{
          what: 'loop',
          why: fields.why,
          onWhy: (why) => change({ why }),
          keep: (tag) => keepLoopAction({ tag, fields }),
        }}
      />
    </>
  );
}

function Head({
  fields,
  change,
  fault,
  unit,
}: {
  fields: LoopFields;
  change: (patch: Partial<LoopFields>) => void;
  fault: LoopFault | null;
  unit: string;
}) {
  const error = (name: string) => (fault?.field === name ? fault.message : null);
  return (
    <Box sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', alignItems: 'flex-start', mb: 1 }}>
      <NumberField
        label={`Applied, ${unit}`}
        text={fields.applied}
        onText={(applied) => change({ applied })}
        error={error('applied')}
      />
      <NumberField
        label="A reading is known to ±, % of span"
        text={fields.meter}
        onText={(meter) => change({ meter })}
        error={error('meter')}
      />
      <FormControlLabel
        sx={{ minHeight: 44 }}
        control={
          <Checkbox
            checked={fields.isFlow === 'yes'}
            onChange={(_event, isOn) => change({ isFlow: isOn ? 'yes' : 'no' })}
          />
        }
        label="It measures a flow by a root"
      />
      <TextField
        select
        label="Judged by"
        value={fields.judgedBy}
        onChange={({ target }) => change({ judgedBy: target.value })}
        sx={{ minWidth: 230 }}
      >
        {TOLERANCE_SUMS.map((one) => (
          <MenuItem key={one} value={one}>
            {one === 'sum' ? 'the sum of tolerances' : 'the root of the sum of squares'}
          </MenuItem>
        ))}
      </TextField>
    </Box>
  );
}

function Roots({ result: { wrongRoots } }: { result: LoopResult }) {
  return wrongRoots.map(({ name, roots }) => (
    <Alert key={name} severity="warning" variant="outlined">
      On the way to {name} the root is taken {roots === 0 ? 'nowhere' : `${roots} times`}: for a flow it is
      taken exactly once.
    </Alert>
  ));
}

function Tolerances({ result: { taps, judgedBy } }: { result: LoopResult }) {
  const figure = (value: number | undefined) =>
    value === undefined ? '–' : <Figure>{formatFixed(value, 3)}</Figure>;
  return (
    <Sheet title="What the tolerances come to">
      <DataTable
        label="Tolerances at each tap"
        rows={taps}
        keyOf={({ fields }) => fields.id}
        columns={[
          ['Tap', ({ fields }) => fields.name],
          ['Own, ± %', ({ fields }) => <Figure>{fields.tolerance}</Figure>, 'right'],
          ['Sum of all before, ± %', ({ tolerance }) => figure(tolerance?.sum), 'right'],
          ['Root of the sum of squares, ± %', ({ tolerance }) => figure(tolerance?.rootSumSquare), 'right'],
          ['Roots on the way', ({ roots }) => <Figure>{roots}</Figure>, 'right'],
        ]}
      />
      <Typography variant="body2" sx={{ color: 'text.secondary', mt: 1 }}>
        Per cent of the span at the tap, each seen through the slope of what stands behind it, where this is
        applied. A reading is judged by the {judgedBy}.
      </Typography>
    </Sheet>
  );
}
