import Typography from '@mui/material/Typography';
import { LineLink } from '@/ui/LineLink';
import { Sheet } from '@/ui/Sheet';
import { TOOLS } from '@/places/workshop/tools';

export const metadata = { title: 'Workshop' };

export default function WorkshopPage() {
  return (
    <Sheet title="Workshop" aside="Work something out; nothing here is kept on a job.">
      {TOOLS.map(({ path, name, about }) => (
        <LineLink key={path} href={path} name={name} about={about} aside="" />
      ))}
      <Typography variant="body2" sx={{ mt: 2, color: 'text.secondary' }}>
        Every calculation is also at POST /api/v1/compute, described at{' '}
        <a href="/api/v1/openapi.json">/api/v1/openapi.json</a>.
      </Typography>
    </Sheet>
  );
}
