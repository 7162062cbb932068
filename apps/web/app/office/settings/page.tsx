import { listPolicies } from '@barys/store/intervals';
import { findSite } from '@barys/store/people';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { LetterheadForm } from '@/places/office/settings/LetterheadForm';
import { PolicyForm } from '@/places/office/settings/PolicyForm';
import { ReviewSetting } from '@/places/office/settings/ReviewSetting';
import { ZoneSetting } from '@/places/office/settings/ZoneSetting';
import { database } from '@/server/database';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'Settings' };

export default async function SettingsPage() {
  const [site, policies] = await Promise.all([findSite(database()), listPolicies(database())]);
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
      <Sheet title="Intervals">
        <Typography sx={{ mb: 1.5 }}>
          What part is to be found inside at the end of an interval, and how long an interval may be at most,
          by criticality. The advice and every later change follow it; intervals in force stay. Only an
          administrator changes this, and that of safety functions only one who is entrusted with them.
        </Typography>
        {policies.map((policy) => (
          <PolicyForm key={policy.criticality} policy={policy} />
        ))}
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
