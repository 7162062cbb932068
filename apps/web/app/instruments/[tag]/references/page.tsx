import { listReferences } from '@barys/store/registers';
import { rankReferences } from '@barys/store/runs';
import { FitTable } from '@/places/references/FitTable';
import { database } from '@/server/database';
import { localDate } from '@/server/dates';
import { LinkButton } from '@/ui/LinkButton';
import { PageHead } from '@/ui/PageHead';
import { Sheet } from '@/ui/Sheet';
import { loadInstrument, type Params } from '@/places/instruments/load';

export const metadata = { title: 'Which reference fits' };

export default async function FittingReferencesPage({ params }: { params: Params }) {
  const [instrument, references] = await Promise.all([loadInstrument(params), listReferences(database())]);
  const today = localDate(new Date());
  return (
    <>
      <PageHead
        title={`Which reference fits ${instrument.tag}`}
        about={`${instrument.service}. A ratio is the tolerance over what the reference itself may be wrong by, at the weakest point of the procedure.`}
      >
        <LinkButton href={`/instruments/${instrument.tag}`}>Back to {instrument.tag}</LinkButton>
      </PageHead>
      {(['input', 'output'] as const).map((side) => (
        <Sheet key={side} title={side === 'input' ? 'For the input' : 'For the output'} sx={{ mb: 1.5 }}>
          <FitTable
            fits={rankReferences(references, instrument, side, { today })}
            label={`References for the ${side}`}
            tag={instrument.tag}
          />
        </Sheet>
      ))}
    </>
  );
}
