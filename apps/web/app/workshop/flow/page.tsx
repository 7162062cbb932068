import { FLOW_FIELDS } from '@/places/workshop/flow/fields';
import { FlowDesk } from '@/places/workshop/flow/FlowDesk';
import { addressOf } from '@/ui/addressOf';

export const metadata = { title: 'Flow' };

export default async function FlowPage({
  searchParams,
}: {
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}) {
  return <FlowDesk initial={addressOf(FLOW_FIELDS, await searchParams)} />;
}
