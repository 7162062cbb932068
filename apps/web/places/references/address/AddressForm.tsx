'use client';
import type { Bench, ReferenceAddress } from '@barys/store/benches';
import type { Standard } from '@barys/store/registers';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { Draft } from '@/ui/Draft';
import { FieldGrid, unplaced } from '@/ui/FieldGrid';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { useSubmit } from '@/ui/useSubmit';
import { useTyped } from '@/ui/useTyped';
import { dropAddressAction, keepAddressAction } from './actions';
import {
  ADDRESS_FIELDS,
  DRIVER_SPECS,
  fieldsOfAddress,
  fieldsOfDriver,
  fieldsOfSpeech,
  SHIPPED,
  waySpecs,
  type AddressFields,
} from './fields';

/** How a reference is reached, and how it is spoken to: all of it data. */
export function AddressForm({
  standard,
  address,
  benches,
}: {
  standard: Pick<Standard, 'id' | 'tag'>;
  address: ReferenceAddress | null;
  benches: readonly Bench[];
}) {
  const [fields, change, draft] = useTyped(
    address === null
      ? { ...ADDRESS_FIELDS, bench: String(benches[0]?.id ?? '') }
      : fieldsOfAddress(address.bench.id, address.wire),
    `address of ${standard.id} ${address?.revision ?? 'new'}`,
  );
  const { answer, isPending, form } = useSubmit(keepAddressAction);
  const drop = useSubmit(dropAddressAction);
  const isText = fields.speaks === 'text';
  const specs = [...waySpecs(fields, benches), ...(isText ? DRIVER_SPECS : [])];
  const changeAll = (patch: Partial<AddressFields>) =>
    change(patch.speaks === undefined ? patch : fieldsOfSpeech(patch.speaks));
  return (
    <form
      {...form(
        () => ({ standardId: standard.id, revision: address?.revision ?? null, fields }),
        draft.forget,
      )}
    >
      <Sheet title="Where it is" sx={{ mb: 1.5 }}>
        <Draft draft={draft} />
        <FieldGrid specs={waySpecs(fields, benches)} fields={fields} change={changeAll} answer={answer} />
      </Sheet>
      <Sheet title="How it is spoken to">
        {isText ? (
          <>
            <Beginning onChosen={(driver) => change(fieldsOfDriver(driver))} />
            <FieldGrid specs={DRIVER_SPECS} fields={fields} change={change} answer={answer} />
          </>
        ) : null}
        <Typography variant="body2" sx={{ color: 'text.secondary', mt: 1 }}>
          {isText ? ABOUT_TEXT : ABOUT_HART}
        </Typography>
        <Stack direction="row" sx={{ gap: 1, mt: 1.5, flexWrap: 'wrap' }}>
          <Button type="submit" variant="contained" aria-busy={isPending} sx={{ minHeight: 44 }}>
            {address === null ? 'Enter the address' : 'Keep the changes'}
          </Button>
          {address !== null && (
            <Button
              onClick={() => drop.submit({ standardId: standard.id, revision: address.revision })}
              sx={{ minHeight: 44 }}
            >
              Remove it
            </Button>
          )}
        </Stack>
        <Refused answer={unplaced(specs, answer)} />
        <Refused answer={drop.answer} />
      </Sheet>
    </form>
  );
}

const ABOUT_TEXT =
  'It is spoken to in lines of text, as IEEE 488.2 and SCPI-1999 have them. The patterns are regular expressions over the whole answer. What an instrument calls its commands stands in its manual; what can be set has to be held and vented as well.';
const ABOUT_HART =
  'The transmitter on the loop of this interface is asked by the universal and common-practice commands of HART: its digital value in a run, its settings on a set-up walk and at Adjust. What only its own tool can do stays with that. Its own loop current is what it believes, and is never taken for one that was measured.';

/** A driver to begin with. */
function Beginning({ onChosen }: { onChosen: (driver: (typeof SHIPPED)[number]) => void }) {
  return (
    <TextField
      select
      label="Begin with"
      value=""
      onChange={({ target }) => {
        const chosen = SHIPPED.find(({ name }) => name === target.value);
        if (chosen !== undefined) onChosen(chosen);
      }}
      helperText="Fills all below; change what is different"
      sx={{ mb: 1.5, minWidth: 280, maxWidth: '100%' }}
    >
      {SHIPPED.map(({ name }) => (
        <MenuItem key={name} value={name} sx={{ minHeight: 44 }}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  );
}
