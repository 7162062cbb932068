import Typography from '@mui/material/Typography';
import { PageHead } from '@/ui/PageHead';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'Export' };

const FILES: readonly (readonly [href: string, name: string, about: string])[] = [
  [
    '/instruments/export',
    'Instruments, CSV',
    'One a row, with the range in force. An import reads it back. The list of instruments exports what it shows.',
  ],
  ['/office/export/references', 'References, CSV', 'One range a row. An import reads it back.'],
  ['/office/export/jobs', 'Jobs, CSV', 'With their verdicts.'],
  ['/office/export/bodies', 'Bodies, CSV', 'What each model can be ranged to.'],
  ['/office/export/procedures', 'Procedures, CSV', 'The versions in force.'],
  ['/office/export/people', 'People, CSV', 'With their roles.'],
  ['/office/trail/export', 'Trail, CSV', 'The newest 100,000 entries.'],
  [
    '/api/v1/export',
    'Everything, JSON',
    'All registers, jobs, readings and the trail, without passwords; described in docs/export.md.',
  ],
  [
    '/calendar.ics',
    'Due dates, iCalendar',
    'The next twelve months. A calendar program subscribes to /calendar.ics?token=… with a reading token of yours.',
  ],
];

export default function ExportPage() {
  return (
    <>
      <PageHead
        title="Export"
        about="A cell that a spreadsheet would take for a formula is led by an apostrophe."
      />
      <Sheet>
        {FILES.map(([href, name, about]) => (
          <Typography key={href} sx={{ py: 1, borderBottom: '1px solid var(--rule)' }}>
            <a href={href} download>
              {name}
            </a>
            <Typography component="span" variant="body2" sx={{ display: 'block', color: 'text.secondary' }}>
              {about}
            </Typography>
          </Typography>
        ))}
      </Sheet>
    </>
  );
}
