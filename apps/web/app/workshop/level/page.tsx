import { LevelDesk } from '@/places/workshop/level/LevelDesk';
import { LEVEL_FIELDS } from '@/places/workshop/level/fields';
import { addressOf } from '@/ui/addressOf';

export const metadata = { title: 'Level' };

export default async function LevelPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  return <LevelDesk initial={addressOf(LEVEL_FIELDS, await searchParams)} />;
}
