import { findSite } from '@barys/store/people';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { LetterheadForm } from '@/places/office/settings/LetterheadForm';
import { ReviewSetting } from '@/places/office/settings/ReviewSetting';
import { ZoneSetting } from '@/places/office/settings/ZoneSetting';
import { database } from '@/server/database';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'Settings' };

export default async function SettingsPage() {
  const site = await findSite(database());
  return (
    <Stack sx={{ gap: 1.5 }}>
      <Sheet title="Review of signed jobs" aside={site?.siteName}>
        <Typography sx={{ mb: 1 }}>
          After a technician has signed, a second person looks at the record and closes it. Only an
          administrator changes this.
        </Typography>
        <ReviewSetting review={site?.review ?? 'another person'} />
      </Sheet>
      <Sheet title="Days of the site">
        <Typography sx={{ mb: 1.5 }}>
          Due dates and dates of work are days of this time zone, wherever the server stands. Only an
          administrator changes this.
        </Typography>
        {site !== null && (
          <ZoneSetting
            zone={site.timeZone}
            zones={[...new Set([site.timeZone, 'UTC', ...Intl.supportedValuesOf('timeZone')])].sort()}
          />
        )}
      </Sheet>
      <Sheet title="Head of the certificate">
        <Typography sx={{ mb: 1.5 }}>
          Who calibrates, and for whom. A signed job keeps what stood here on its day. Only an administrator
          changes this.
        </Typography>
        {site !== null && <LetterheadForm letterhead={site.letterhead} />}
      </Sheet>
    </Stack>
  );
}
