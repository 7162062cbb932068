import { biasesOf, loopsOf, listLiquids, notesOf, type Instrument, vesselsOf } from '@barys/store/registers';
import { NoteList } from './NoteList';
import { LoopSheet } from './LoopSheet';
import { VesselSheet } from './VesselSheet';
import { BiasTable } from '@/places/jobs/BiasTable';
import { database } from '@/server/database';
import { Sheet } from '@/ui/Sheet';

const NOTES = 20;

/** What the workshop left with an instrument; no vessel where it measures no level. */
export async function foundInWorkshop({ id, measures }: Instrument) {
  const db = database();
  const isLevel = measures === 'level';
  const [vessels, liquids, notes, biases, loops] = await Promise.all([
    isLevel ? vesselsOf(db, id) : null,
    isLevel ? listLiquids(db) : [],
    notesOf(db, id, NOTES),
    biasesOf(db, id, NOTES),
    loopsOf(db, id),
  ]);
  return { vessels, liquids, notes, biases, loops };
}

/** Vessels, loops, biases and notes of an instrument. */
export function FromWorkshop({
  instrument,
  found,
}: {
  instrument: Instrument;
  found: Awaited<ReturnType<typeof foundInWorkshop>>;
}) {
  return (
    <>
      {found.vessels !== null && (
        <VesselSheet instrument={instrument} vessels={found.vessels} liquids={found.liquids} />
      )}
      {instrument.configuration.signal !== 'indication' && (
        <LoopSheet instrument={instrument} loops={found.loops} />
      )}
      {found.biases.length > 0 && (
        <Sheet title="Biases entered hot" aside="the first is in force">
          <BiasTable biases={found.biases} />
        </Sheet>
      )}
      {found.notes.length > 0 && (
        <Sheet title="Notes from the workshop">
          <NoteList notes={found.notes} />
        </Sheet>
      )}
    </>
  );
}
