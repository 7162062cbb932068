import { StoreError } from '@barys/store/db';
import { findInstrument, findingsOf, listReferences, type Instrument } from '@barys/store/registers';
import { fitOf, measuresSide } from '@barys/store/runs';
import Stack from '@mui/material/Stack';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import Typography from '@mui/material/Typography';
import Link from 'next/link';
import { CertificateResults } from '@/places/references/CertificateResults';
import { CoverageTable } from '@/places/references/CoverageTable';
import { InstrumentPick } from '@/places/references/InstrumentPick';
import { CertificateForm, FindingForm } from '@/places/references/ReferenceForms';
import { accuracyWords, rangeWords } from '@/places/references/words';
import { database } from '@/server/database';
import { dueInWords, localDate, showDate } from '@/server/dates';
import { Columns } from '@/ui/Columns';
import { Figure } from '@/ui/Figure';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { Scroller } from '@/ui/Scroller';
import { Sheet } from '@/ui/Sheet';
import { loadStandard, type Params } from '@/places/references/load';

export async function generateMetadata({ params }: { params: Params }) {
  return { title: decodeURIComponent((await params).tag) };
}

async function instrumentOf(tag: string | undefined): Promise<Instrument | null> {
  if (tag === undefined || tag.trim() === '') return null;
  try {
    return await findInstrument(database(), { tag: tag.trim().toUpperCase() });
  } catch (error) {
    if (error instanceof StoreError) return null;
    throw error;
  }
}

export default async function ReferencePage({
  params,
  searchParams,
}: {
  params: Params;
  searchParams: Promise<{ instrument?: string }>;
}) {
  const standard = await loadStandard(params);
  const { instrument: wanted } = await searchParams;
  const db = database();
  const [references, findings, instrument] = await Promise.all([
    listReferences(db),
    findingsOf(db, standard.tag),
    instrumentOf(wanted),
  ]);
  const own = references.filter(({ tag }) => tag === standard.tag);
  const ranges = own.map((one) => ({ id: one.id, words: `${one.name} ${rangeWords(one)}`.trim() }));
  const today = localDate(new Date());
  const [inForce] = standard.certificates;
  return (
    <>
      <PageHead
        title={`${standard.tag} ${standard.description}`}
        about={[
          standard.serial === '' ? '' : `serial ${standard.serial}`,
          standard.state,
          standard.location,
          inForce === undefined
            ? 'no certificate'
            : `certificate ${inForce.number}, due ${showDate(inForce.dueOn)} (${dueInWords(inForce.dueOn, today)})`,
        ]
          .filter(Boolean)
          .join(' · ')}
      >
        <LinkButton href={`/references/${standard.tag}/edit`}>Change the entry</LinkButton>
        <LinkButton href={`/references/${standard.tag}/modules/new`}>Add a range</LinkButton>
      </PageHead>
      <Columns columns="1.35fr 1fr">
        <Stack sx={{ gap: 1.5 }}>
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
          <Sheet title="How well it serves an instrument">
            <InstrumentPick typed={wanted ?? ''} isFound={instrument !== null} />
            {instrument !== null && <Coverage own={own} instrument={instrument} today={today} />}
          </Sheet>
        </Stack>
        <Stack sx={{ gap: 1.5 }}>
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
          <Sheet title="Found out of tolerance">
            {findings.map(({ id, foundOn, note }) => (
              <Typography key={id} variant="body2" sx={{ py: 0.5 }}>
                <Link prefetch={false} href={`/references/${standard.tag}/findings/${id}`}>
                  {showDate(foundOn)}
                </Link>
                : {note}
              </Typography>
            ))}
            {findings.length === 0 && (
              <Typography variant="body2">Never, as far as it was entered.</Typography>
            )}
            {own.length > 0 && (
              <details style={{ marginTop: 8 }}>
                <summary style={{ minHeight: 44, cursor: 'pointer' }}>It was found to read wrongly</summary>
                <FindingForm tag={standard.tag} modules={ranges} />
              </details>
            )}
          </Sheet>
        </Stack>
      </Columns>
    </>
  );
}

/** The range of the reference that serves the instrument best, on the side where it measures what is asked for. */
function Coverage({
  own,
  instrument,
  today,
}: {
  own: Awaited<ReturnType<typeof listReferences>>;
  instrument: Instrument;
  today: string;
}) {
  const options = (['input', 'output'] as const).flatMap((side) =>
    own
      .filter((reference) => measuresSide(reference, instrument, side))
      .map((reference) => ({ side, fit: fitOf(reference, instrument, side, { today }) })),
  );
  const covering = options
    .filter(({ fit }) => fit.ratio !== null)
    .sort(
      (a, b) =>
        Number(a.fit.unfit !== null) - Number(b.fit.unfit !== null) ||
        (b.fit.ratio ?? 0) - (a.fit.ratio ?? 0),
    );
  const [best] = covering;
  if (best === undefined)
    return (
      <Typography variant="body2" sx={{ mt: 1 }}>
        {options.length === 0
          ? `It measures nothing that ${instrument.tag} asks for.`
          : `It does not serve ${instrument.tag}: ${options[0]?.fit.unfit}.`}
      </Typography>
    );
  const { reference, unfit } = best.fit;
  return (
    <>
      <Typography variant="body2" sx={{ my: 1 }}>
        {[reference.name, rangeWords(reference)].filter(Boolean).join(', ')}, for the {best.side} of{' '}
        {instrument.tag}
        {unfit === null ? '.' : `; it does not fit: ${unfit}.`} The upright line stands at 4:1.
      </Typography>
      <CoverageTable reference={reference} instrument={instrument} side={best.side} today={today} />
    </>
  );
}
