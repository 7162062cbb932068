/** The verdict on a loop: at each tap by all that lies before it, and of each item by itself. */
import Alert from '@mui/material/Alert';
import Typography from '@mui/material/Typography';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { Sheet } from '@/ui/Sheet';
import { VerdictMark } from '@/ui/VerdictMark';
import type { ShownLoop } from './shownLoop';

export function LoopSheet({ loop, title = 'The loop' }: { loop: ShownLoop; title?: string }) {
  const { verdict, headline, suspect, taps, warnings, version, judgedBy } = loop;
  return (
    <Sheet title={title} aside={`version ${version} of the loop, judged by the ${judgedBy} of tolerances`}>
      <Typography sx={{ fontSize: 19, lineHeight: 1.35, mb: 1 }}>
        {verdict !== null && <VerdictMark verdict={verdict} size={19} />} {headline}
      </Typography>
      {warnings.map((warning) => (
        <Alert key={warning} severity="warning" variant="outlined" sx={{ mb: 1 }}>
          {warning}
        </Alert>
      ))}
      <DataTable
        label="Verdict at each tap"
        rows={taps}
        keyOf={({ place }) => String(place)}
        columns={[
          ['Tap', ({ name, place }) => (place === suspect ? <strong>{name}, likely wrong</strong> : name)],
          ['Worst, % of span', ({ worst }) => <Figure>{worst}</Figure>, 'right'],
          ['By all before it', ({ verdict: one }) => (one === null ? '–' : <VerdictMark verdict={one} />)],
          ['By itself', ({ own }) => (own === null ? '–' : <VerdictMark verdict={own} />)],
        ]}
      />
    </Sheet>
  );
}
