import { addressOf } from '@/ui/addressOf';
import { ConvertDesk } from '@/places/workshop/convert/ConvertDesk';
import { CONVERT_FIELDS } from '@/places/workshop/convert/fields';

export const metadata = { title: 'Convert' };

export default async function ConvertPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  return <ConvertDesk initial={addressOf(CONVERT_FIELDS, await searchParams)} />;
}
