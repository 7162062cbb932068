import { addressOf } from '@/ui/addressOf';
import { ExpectedDesk } from '@/places/workshop/expected/ExpectedDesk';
import { EXPECTED_FIELDS } from '@/places/workshop/expected/fields';

export const metadata = { title: 'Expected values' };

export default async function ExpectedPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  return <ExpectedDesk initial={addressOf(EXPECTED_FIELDS, await searchParams)} />;
}
