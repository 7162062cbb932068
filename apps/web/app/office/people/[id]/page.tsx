import { listEverybody } from '@barys/store/people';
import { notFound } from 'next/navigation';
import { PersonForm } from '@/places/office/people/PersonForm';
import { database } from '@/server/database';
import { pageId } from '@/server/orNotFound';

export const metadata = { title: 'A person' };

export default async function PersonPage({ params }: { params: Promise<{ id: string }> }) {
  const id = pageId((await params).id);
  const person = (await listEverybody(database())).find((one) => one.id === id);
  if (person === undefined) notFound();
  return <PersonForm person={person} />;
}
