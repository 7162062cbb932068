import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { TOOL_GROUPS } from '@/places/workshop/tools';
import { LineLink } from '@/ui/LineLink';
import { PageHead } from '@/ui/PageHead';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'Workshop' };

export default function WorkshopPage() {
  return (
    <>
      <PageHead title="Workshop" about="Work something out; nothing here is kept on a job." />
      <Box
        sx={{
          display: 'grid',
          gap: 1.5,
          alignItems: 'start',
          gridTemplateColumns: { xs: '1fr', md: 'repeat(2, 1fr)' },
        }}
      >
        {TOOL_GROUPS.map(({ name, tools }) => (
          <Sheet key={name} title={name}>
            {tools.map((tool) => (
              <LineLink key={tool.path} href={tool.path} name={tool.name} about={tool.about} aside="" />
            ))}
          </Sheet>
        ))}
      </Box>
      <Typography variant="body2" sx={{ mt: 2, color: 'text.secondary' }}>
        Every calculation is also at POST /api/v1/compute, described at{' '}
        {/* oxlint-disable-next-line nextjs/no-html-link-for-pages -- data, and no page */}
        <a href="/api/v1/openapi.json">/api/v1/openapi.json</a>.
      </Typography>
    </>
  );
}
