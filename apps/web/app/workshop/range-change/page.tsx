import { StoreError } from '@barys/store/db';
import { findInstrument, listBodies } from '@barys/store/registers';
import Alert from '@mui/material/Alert';
import { RANGE_CHANGE_FIELDS, type RangeChangeFields } from '@/places/workshop/range-change/fields';
import { RangeChangeDesk } from '@/places/workshop/range-change/RangeChangeDesk';
import { database } from '@/server/database';
import { addressOf } from '@/ui/addressOf';

export const metadata = { title: 'Range change' };

/** The range in force of an instrument as the fields of the page; null where there is no such instrument. */
async function rangeOf(tag: string): Promise<Partial<RangeChangeFields> | null> {
  try {
    const { configuration, body } = await findInstrument(database(), { tag });
    const [low, high] = [String(configuration.lrv), String(configuration.urv)];
    return {
      body: String(body.id),
      unit: configuration.inputUnit,
      oldLow: low,
      oldHigh: high,
      newLow: low,
      newHigh: high,
    };
  } catch (error) {
    if (error instanceof StoreError) return null;
    throw error;
  }
}

export default async function RangeChangePage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const address = await searchParams;
  const tag = typeof address['tag'] === 'string' ? address['tag'].trim().toUpperCase() : '';
  // A tag alone asks for its range; with figures beside it the address is what was worked out already.
  const isAsked = tag !== '' && address['newLow'] === undefined;
  const bodies = await listBodies(database());
  const found = isAsked ? await rangeOf(tag) : {};
  const initial = addressOf({ ...RANGE_CHANGE_FIELDS, ...found, tag }, address);
  return (
    <>
      {found === null && (
        <Alert severity="warning" variant="outlined" sx={{ mb: 1.5 }}>
          {`There is no instrument ${tag}.`}
        </Alert>
      )}
      <RangeChangeDesk initial={initial} bodies={bodies} />
    </>
  );
}
