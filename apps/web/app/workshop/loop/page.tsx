import { LOOP_FIELDS } from '@/places/workshop/loop/fields';
import { LoopDesk } from '@/places/workshop/loop/LoopDesk';
import { addressOf } from '@/ui/addressOf';

export const metadata = { title: 'Loop' };

export default async function LoopPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  return <LoopDesk initial={addressOf(LOOP_FIELDS, await searchParams)} />;
}
