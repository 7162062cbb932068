import { listLiquids } from '@barys/store/registers';
import { database } from '@/server/database';
import { LevelDesk } from '@/places/workshop/level/LevelDesk';
import { LEVEL_FIELDS } from '@/places/workshop/level/fields';
import { addressOf } from '@/ui/addressOf';

export const metadata = { title: 'Level' };

export default async function LevelPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  const liquids = await listLiquids(database());
  return <LevelDesk initial={addressOf(LEVEL_FIELDS, await searchParams)} liquids={liquids} />;
}
