import { findSite } from '@barys/store';
import Typography from '@mui/material/Typography';
import { ReviewSetting } from '@/office/settings/ReviewSetting';
import { database } from '@/server/database';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'Settings' };

export default async function SettingsPage() {
  const site = await findSite(database());
  return (
    <Sheet title="Review of signed jobs" aside={site?.siteName}>
      <Typography sx={{ mb: 1 }}>
        After a technician has signed, a second person looks at the record and closes it. Only an
        administrator changes this.
      </Typography>
      <ReviewSetting review={site?.review ?? 'another person'} />
    </Sheet>
  );
}
