import { SUPPLY_FIELDS } from '@/places/workshop/supply/fields';
import { SupplyDesk } from '@/places/workshop/supply/SupplyDesk';
import { addressOf } from '@/ui/addressOf';

export const metadata = { title: 'Loop supply' };

export default async function SupplyPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  return <SupplyDesk initial={addressOf(SUPPLY_FIELDS, await searchParams)} />;
}
