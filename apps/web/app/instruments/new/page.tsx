import { findSite } from '@barys/store/people';
import { listBodies, listProcedures } from '@barys/store/registers';
import Alert from '@mui/material/Alert';
import Link from 'next/link';
import { NEW_INSTRUMENT } from '@/places/instruments/fields';
import { namesOf } from '@/places/office/procedures/words';
import { NewInstrumentForm } from '@/places/instruments/InstrumentForm';
import { database } from '@/server/database';
import { localDate } from '@/server/dates';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';

export const metadata = { title: 'Add an instrument' };

export default async function NewInstrumentPage() {
  const db = database();
  const [bodies, procedures, site] = await Promise.all([listBodies(db), listProcedures(db), findSite(db)]);
  // Nobody here has calibrated it yet: due at once, as an imported one without a date is.
  const dueOn = localDate(new Date());
  return (
    <>
      <PageHead title="Add an instrument" about="Its register entry, and the range that it is set to.">
        <LinkButton href="/office/bodies">Bodies that the plant has</LinkButton>
      </PageHead>
      {bodies.length === 0 && (
        <Alert severity="info" variant="outlined" sx={{ mb: 1.5 }}>
          There is no body yet. <Link href="/office/bodies/new">Add the model of this instrument</Link> first:
          what is typed here is not kept meanwhile.
        </Alert>
      )}
      <NewInstrumentForm
        bodies={bodies}
        procedures={namesOf(procedures)}
        initial={{ ...NEW_INSTRUMENT, site: site?.siteName ?? '', dueOn }}
      />
    </>
  );
}
