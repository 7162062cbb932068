import { findSite, listPeople } from '@barys/store/people';
import Box from '@mui/material/Box';
import { redirect } from 'next/navigation';
import { DemoSignIn, SignInForm } from '@/places/account/SignInForms';
import { database } from '@/server/database';
import { Columns } from '@/ui/Columns';

export const metadata = { title: 'Sign in' };

export default async function SignInPage({ searchParams }: { searchParams: Promise<{ next?: string }> }) {
  const { next = '/' } = await searchParams;
  const db = database();
  const [site, people] = await Promise.all([findSite(db), listPeople(db)]);
  if (people.length === 0) redirect('/first-start');
  return (
    <Box sx={{ mt: 2 }}>
      <Columns columns="1.3fr 1fr">
        {site?.isDemo === true && <DemoSignIn people={people} next={next} />}
        <SignInForm next={next} />
      </Columns>
    </Box>
  );
}
