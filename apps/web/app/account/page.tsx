import { tokensOf } from '@barys/store/people';
import Alert from '@mui/material/Alert';
import { redirect } from 'next/navigation';
import { ChangePasswordForm } from '@/places/account/SignInForms';
import { TokenDesk } from '@/places/account/TokenDesk';
import { database } from '@/server/database';
import { actingPerson } from '@/server/person';
import { Columns } from '@/ui/Columns';
import { Sheet } from '@/ui/Sheet';
import { PageHead } from '@/ui/PageHead';

export const metadata = { title: 'Password and tokens' };

export default async function AccountPage() {
  const person = await actingPerson();
  if (person === null) redirect('/sign-in');
  const tokens = await tokensOf(database(), person.id);
  return (
    <>
      <PageHead title={person.name} about={person.role} />
      {person.mustChangePassword && (
        <Alert severity="warning" variant="outlined" sx={{ mb: 1.5 }}>
          Somebody else has set your password. Change it now; nothing else can be done before.
        </Alert>
      )}
      <Columns columns="1fr 1.8fr">
        {person.hasPassword ? (
          <ChangePasswordForm />
        ) : (
          <Sheet title="Password">You sign in without a password: this is a demo.</Sheet>
        )}
        <TokenDesk tokens={tokens} now={new Date()} />
      </Columns>
    </>
  );
}
