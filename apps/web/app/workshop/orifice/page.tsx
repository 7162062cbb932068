import { ORIFICE_FIELDS } from '@/places/workshop/orifice/fields';
import { OrificeDesk } from '@/places/workshop/orifice/OrificeDesk';
import { addressOf } from '@/ui/addressOf';

export const metadata = { title: 'Orifice plate' };

export default async function OrificePage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  return <OrificeDesk initial={addressOf(ORIFICE_FIELDS, await searchParams)} />;
}
