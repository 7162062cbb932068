import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import Link from 'next/link';
import { AddressForm } from '@/places/references/address/AddressForm';
import { loadAddress } from '@/places/references/address/load';
import { TrialSheet } from '@/places/references/address/TrialSheet';
import { loadStandard, type Params } from '@/places/references/load';
import { PageHead } from '@/ui/PageHead';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'Address at a bench' };

export default async function AddressPage({ params }: { params: Params }) {
  const standard = await loadStandard(params);
  const { address, benches, seen } = await loadAddress(standard);
  const { id, tag, description } = standard;
  return (
    <>
      <PageHead
        title={`${tag} at a bench`}
        about={`${description}. An administrator enters how it is reached; a link opens nothing else.`}
      />
      <Stack sx={{ gap: 1.5 }}>
        {address !== null && <TrialSheet key={`trial ${address.revision}`} standard={{ id, tag }} first={seen} />}
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
