import { findSite, listPeople } from '@barys/store/people';
import { redirect } from 'next/navigation';
import { FirstStartForm } from '@/places/account/SignInForms';
import { database } from '@/server/database';

export const metadata = { title: 'First start' };

export default async function FirstStartPage() {
  const db = database();
  const [site, people] = await Promise.all([findSite(db), listPeople(db)]);
  if (people.length > 0) redirect('/sign-in');
  return <FirstStartForm needsSite={site === null} />;
}
