import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import Link from 'next/link';
import { AddressForm } from '@/places/references/address/AddressForm';
import { TrialSheet } from '@/places/references/address/TrialSheet';
import { addressOf, listBenches } from '@barys/store/benches';
import { database } from '@/server/database';
import { loadStandard, type Params } from '@/places/references/load';
import { PageHead } from '@/ui/PageHead';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'Address at a bench' };

export default async function AddressPage({ params }: { params: Params }) {
  const standard = await loadStandard(params);
  const db = database();
  const [address, benches] = await Promise.all([addressOf(db, standard.id), listBenches(db, new Date())]);
  const { id, tag, description } = standard;
  return (
    <>
      <PageHead
        title={`${tag} at a bench`}
        about={`${description}. An administrator enters how it is reached; a link opens nothing else.`}
      />
      <Stack sx={{ gap: 1.5 }}>
        {address !== null && <TrialSheet key={`trial ${address.revision}`} standardId={id} />}
        {benches.length === 0 ? (
          <Sheet>
            <Typography>
              No bench yet. An administrator makes a token for one at <Link href="/account">Account</Link>{' '}
              (“stand at a bench as a link”).
            </Typography>
          </Sheet>
        ) : (
          <AddressForm
            key={`form ${address?.revision}`}
            standard={{ id, tag }}
            address={address}
            benches={benches.map((bench) => ({ id: bench.id, name: bench.name }))}
          />
        )}
      </Stack>
    </>
  );
}
