import { YEAR_DAYS } from '@barys/core/drift';
import { workFamily, type IntervalCost } from '@barys/core/interval';
import { formatFixed, formatPlain } from '@barys/core/text';
import type { Advised } from '@barys/store/intervals';
import type { Instrument } from '@barys/store/registers';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { Sheet } from '@/ui/Sheet';
import { Working } from '@/ui/Working';
import { IntervalForm } from './IntervalForm';
import { adviceWords, months, partWords, reasonWords } from './words';

const DASH = '—';

/** What an interval costs and lets through, beside the one that is advised. */
function CostTable({ costs }: { costs: readonly IntervalCost[] }) {
  return (
    <DataTable
      label="What intervals cost"
      rows={costs}
      keyOf={(cost) => cost.months}
      columns={[
        ['Months', (cost) => <Figure>{cost.months}</Figure>],
        [
          'Jobs a year',
          ({ jobsPerYear }) => <Figure>{formatPlain(Number(jobsPerYear.toFixed(2)))}</Figure>,
          'right',
        ],
        [
          'Inside at its end',
          ({ insideAtEnd }) => <Figure>{insideAtEnd === null ? DASH : partWords(insideAtEnd)}</Figure>,
          'right',
        ],
        [
          'Days a year outside',
          ({ outsidePart }) => (
            <Figure>
              {outsidePart === null ? DASH : formatFixed(outsidePart * YEAR_DAYS, outsidePart > 0.03 ? 0 : 1)}
            </Figure>
          ),
          'right',
        ],
      ]}
    />
  );
}

/** Whether the acting person may change this interval, and if not, why. */
export interface MayChange {
  readonly why: string | null;
}

/** The advice with its reason, what it costs, and the decision. */
export function IntervalSheet({
  instrument,
  advised,
  may,
}: {
  instrument: Instrument;
  advised: Advised;
  may: MayChange;
}) {
  const { advice, cap, target } = advised;
  const isChange = advice.months !== advice.now.months;
  // By its own drift, whose working stands there, or by its family.
  const steps =
    advice.drift === null && advice.family !== null ? workFamily(advice.family, advice.months) : [];
  return (
    <Sheet title={`Interval: ${adviceWords(advice)}`}>
      <Box component="ul" sx={{ m: 0, mb: 1, pl: 2.25 }}>
        {advice.reasons.map((reason) => (
          <Typography key={reason.code} component="li" variant="body2">
            {reasonWords(reason)}
          </Typography>
        ))}
      </Box>
      <CostTable costs={isChange ? [advice.now, advice.then] : [advice.now]} />
      {steps.length > 0 && <Working of={`what ${months(advice.months)} let through`} steps={steps} />}
      <Typography variant="body2" sx={{ mt: 1, color: 'text.secondary' }}>
        Criticality {instrument.criticality}: at most {months(cap)}, {partWords(target)} to be found inside. A
        plain staircase over its results alone would say {months(advice.stepRule)}.
      </Typography>
      {may.why === null ? (
        <IntervalForm
          instrumentId={instrument.id}
          tag={instrument.tag}
          now={instrument.intervalMonths}
          advised={advice.months}
          cap={cap}
        />
      ) : (
        <Typography variant="body2" sx={{ mt: 1 }}>
          {may.why}
        </Typography>
      )}
    </Sheet>
  );
}
