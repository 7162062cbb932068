/** The sheets of a reference: its ranges, its certificates, and when it was found wrong. */
import type { Finding, Standard } from '@barys/store/registers';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Typography from '@mui/material/Typography';
import Link from 'next/link';
import { showDate } from '@/server/dates';
import { Figure } from '@/ui/Figure';
import { Scroller } from '@/ui/Scroller';
import { Sheet } from '@/ui/Sheet';
import { CertificateResults } from './CertificateResults';
import type { CertifiedRange } from './fields';
import { CertificateForm, FindingForm } from './ReferenceForms';
import { accuracyWords, rangeWords } from './words';

type Ranges = readonly CertifiedRange[];

/** What it covers, range by range. */
export function RangesSheet({ standard }: { standard: Standard }) {
  return (
    <Sheet title="What it covers">
      <Scroller label="Ranges">
        <Table size="small">
          <TableBody>
            {standard.modules.map((module) => (
              <TableRow key={module.id}>
                <TableCell>
                  <Link prefetch={false} href={`/references/${standard.tag}/modules/${module.id}`}>
                    {module.name === '' ? 'range' : module.name}
                  </Link>
                  {module.isActive ? '' : ' (not used)'}
                </TableCell>
                <TableCell>
                  <Figure>{rangeWords(module)}</Figure>
                </TableCell>
                <TableCell>±({accuracyWords(module)})</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </Scroller>
      {standard.modules.length === 0 && (
        <Typography variant="body2">No range yet. Add one, so that it can be chosen.</Typography>
      )}
    </Sheet>
  );
}

export function CertificatesSheet({ standard, ranges }: { standard: Standard; ranges: Ranges }) {
  return (
    <Sheet title="Certificates">
      <Scroller label="Certificates">
        <Table size="small">
          <TableHead>
            <TableRow>
              <TableCell>Number</TableCell>
              <TableCell>Calibrated</TableCell>
              <TableCell>Due</TableCell>
              <TableCell>File</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {standard.certificates.map(({ id, number, laboratory, calibratedOn, dueOn, fileName }) => (
              <TableRow key={id}>
                <TableCell>
                  {number}
                  <br />
                  {laboratory}
                </TableCell>
                <TableCell>{showDate(calibratedOn)}</TableCell>
                <TableCell>{showDate(dueOn)}</TableCell>
                <TableCell>
                  {fileName === '' ? (
                    'none'
                  ) : (
                    <a href={`/references/${standard.tag}/certificates/${id}`}>{fileName}</a>
                  )}
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </Scroller>
      <CertificateResults standard={standard} />
      <details style={{ marginTop: 12 }}>
        <summary style={{ minHeight: 44, cursor: 'pointer' }}>Enter a new certificate</summary>
        <CertificateForm key={standard.certificates.length} standard={standard.id} modules={ranges} />
      </details>
    </Sheet>
  );
}

export function FindingsSheet({
  standard,
  findings,
  ranges,
}: {
  standard: Standard;
  findings: readonly Pick<Finding, 'id' | 'foundOn' | 'note'>[];
  ranges: Ranges;
}) {
  return (
    <Sheet title="Found out of tolerance">
      {findings.map(({ id, foundOn, note }) => (
        <Typography key={id} variant="body2" sx={{ py: 0.5 }}>
          <Link prefetch={false} href={`/references/${standard.tag}/findings/${id}`}>
            {showDate(foundOn)}
          </Link>
          : {note}
        </Typography>
      ))}
      {findings.length === 0 && <Typography variant="body2">Never, as far as it was entered.</Typography>}
      {ranges.length > 0 && (
        <details style={{ marginTop: 8 }}>
          <summary style={{ minHeight: 44, cursor: 'pointer' }}>It was found to read wrongly</summary>
          <FindingForm tag={standard.tag} modules={ranges} />
        </details>
      )}
    </Sheet>
  );
}
