import { listBodies, listProcedures } from '@barys/store/registers';
import { fieldsOfInstrument } from '@/places/instruments/fields';
import { namesOf } from '@/places/office/procedures/words';
import { ChangeInstrumentForm } from '@/places/instruments/InstrumentForm';
import { database } from '@/server/database';
import { PageHead } from '@/ui/PageHead';
import { loadInstrument, type Params } from '@/places/instruments/load';

export const metadata = { title: 'Change an instrument' };

export default async function EditPage({ params }: { params: Params }) {
  const db = database();
  const [instrument, bodies, procedures] = await Promise.all([
    loadInstrument(params),
    listBodies(db),
    listProcedures(db),
  ]);
  return (
    <>
      <PageHead title={instrument.tag} about={instrument.service} />
      <ChangeInstrumentForm
        id={instrument.id}
        revision={instrument.revision}
        bodies={bodies}
        procedures={namesOf(procedures)}
        initial={fieldsOfInstrument(instrument)}
      />
    </>
  );
}
