import { StoreError } from '@barys/store/db';
import { findInstrument, findingsOf, listReferences, type Instrument } from '@barys/store/registers';
import Stack from '@mui/material/Stack';
import { Coverage } from '@/places/references/Coverage';
import { InstrumentPick } from '@/places/references/InstrumentPick';
import { CertificatesSheet, FindingsSheet, RangesSheet } from '@/places/references/sheets';
import { rangeWords } from '@/places/references/words';
import { database } from '@/server/database';
import { dueInWords, localDate, showDate } from '@/server/dates';
import { Columns } from '@/ui/Columns';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
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
  const ranges = own.map((one) => ({
    id: one.id,
    unit: one.unit,
    words: `${one.name} ${rangeWords(one)}`.trim(),
  }));
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
        <LinkButton href={`/references/${standard.tag}/address`}>At a bench</LinkButton>
      </PageHead>
      <Columns columns="1.35fr 1fr">
        <Stack sx={{ gap: 1.5 }}>
          <RangesSheet standard={standard} />
          <Sheet title="How well it serves an instrument">
            <InstrumentPick typed={wanted ?? ''} isFound={instrument !== null} />
            {instrument !== null && <Coverage own={own} instrument={instrument} today={today} />}
          </Sheet>
        </Stack>
        <Stack sx={{ gap: 1.5 }}>
          <CertificatesSheet standard={standard} ranges={ranges} />
          <FindingsSheet standard={standard} findings={findings} ranges={ranges} />
        </Stack>
      </Columns>
    </>
  );
}
