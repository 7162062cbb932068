import { formatPlain } from '@barys/core/text';
import { findFinding, runsInDoubt } from '@barys/store/registers';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Typography from '@mui/material/Typography';
import { DoubtTable } from '@/places/references/DoubtTable';
import { ReleaseForm } from '@/places/references/ReleaseForm';
import { unitWord } from '@/places/references/words';
import { database } from '@/server/database';
import { showDate } from '@/server/dates';
import { orNotFound, pageId } from '@/server/orNotFound';
import { Columns } from '@/ui/Columns';
import { Figure } from '@/ui/Figure';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'Reference out of tolerance' };

const MOST_RUNS = 500;

export default async function FindingPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const db = database();
  const finding = await orNotFound(() => findFinding(db, pageId(id)));
  const runs = await runsInDoubt(db, finding, MOST_RUNS);
  const { reference } = finding;
  const turned = runs.filter(({ verdictThen, verdictNow }) => verdictThen !== verdictNow).length;
  const open = runs.filter(({ decision }) => decision === null).length;
  return (
    <>
      <PageHead
        title={`${reference.tag} found out of tolerance`}
        about={`Found on ${showDate(finding.foundOn)}: ${finding.note} Last good calibration ${showDate(finding.goodUntil)}.`}
      >
        <LinkButton href={`/references/${reference.tag}`}>Back to {reference.tag}</LinkButton>
      </PageHead>
      <Sheet
        title={finding.release === null ? `${reference.tag} is held` : `${reference.tag} is released`}
        sx={{ mb: 1.5 }}
      >
        {finding.release === null ? (
          <>
            <Typography sx={{ mb: 1 }}>Nobody can connect it until it is released.</Typography>
            <ReleaseForm finding={finding.id} tag={reference.tag} />
          </>
        ) : (
          <Typography>
            {finding.release.reason} ({finding.release.by}, {showDate(new Date(finding.release.at))})
          </Typography>
        )}
      </Sheet>
      <Columns columns="minmax(0, 1fr) 220px">
        <Sheet
          title="Runs that used it since"
          aside={`${runs.length === MOST_RUNS ? `the newest ${MOST_RUNS}` : runs.length} runs, ${turned} with another verdict, ${open} to decide`}
        >
          {runs.length === 0 ? (
            <Typography>No run used it in that time.</Typography>
          ) : (
            <DoubtTable finding={finding.id} runs={runs} />
          )}
        </Sheet>
        <Sheet title="Error found">
          <Table size="small">
            <TableHead>
              <TableRow>
                <TableCell>It read, {unitWord(reference.unit)}</TableCell>
                <TableCell>Error</TableCell>
              </TableRow>
            </TableHead>
            <TableBody>
              {finding.errors.map(({ at, error }) => (
                <TableRow key={at}>
                  <TableCell>
                    <Figure>{formatPlain(at)}</Figure>
                  </TableCell>
                  <TableCell>
                    <Figure>
                      {error > 0 ? '+' : ''}
                      {formatPlain(error)}
                    </Figure>
                  </TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
          <Typography variant="body2" sx={{ color: 'text.secondary', mt: 1 }}>
            Error is reading minus true value. Between the points it follows a straight line, beyond them it
            is that of the nearest.
          </Typography>
        </Sheet>
      </Columns>
    </>
  );
}
