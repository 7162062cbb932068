import { DRUM_FIELDS } from '@/places/workshop/drum/fields';
import { DrumDesk } from '@/places/workshop/drum/DrumDesk';
import { addressOf } from '@/ui/addressOf';

export const metadata = { title: 'Boiler drum' };

export default async function DrumPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  return <DrumDesk initial={addressOf(DRUM_FIELDS, await searchParams)} />;
}
