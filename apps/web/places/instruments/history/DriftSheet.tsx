import { dateOfDay, dayNumber, driftRates, driftSteps, YEAR_DAYS, type Calibration } from '@barys/core/drift';
import { LEAST_OF_DRIFT, pointDrifts, workDrift, type DriftFigures } from '@barys/core/interval';
import { formatPlain, formatSigned } from '@barys/core/text';
import { followedVisits } from '@barys/store/intervals';
import { followedPoints, followedSpan, followedZero, type Visit } from '@barys/store/results';
import Typography from '@mui/material/Typography';
import dayjs from 'dayjs';
import { showDate } from '@/server/dates';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { Sheet } from '@/ui/Sheet';
import { Working } from '@/ui/Working';

const percent = (value: number): string => `${formatSigned(value, 3)} %`;

/** Rates of one figure from as left to the next as found; null of fewer than two calibrations. */
function rateOf(history: readonly Calibration[]) {
  if (history.length < 2) return null;
  const steps = driftSteps(history);
  return { steps: steps.length, ...driftRates(steps) };
}

/** Until when the bounds stay inside, and from when on it is to be adjusted; the second only where it comes before the first. */
function boundsInWords(insideUntil: string | null, belowAdjustUntil: string | null, today: string): string {
  if (insideUntil === null) return 'Its bounds of 95 % meet no limit ahead, or are beyond one already.';
  const inside =
    dayjs(insideUntil).diff(today, 'day') > 20 * YEAR_DAYS
      ? 'Its bounds of 95 % stay inside for more than 20 years'
      : `The bounds of 95 % for one new calibration stay inside until ${showDate(insideUntil)}`;
  return belowAdjustUntil === null
    ? `${inside}; they are past the adjust limit already.`
    : `${inside}, and below the adjust limit until ${showDate(belowAdjustUntil)}.`;
}

/** What the instrument did by itself, with the adjustments taken out. */
export function DriftSheet({
  visits,
  rangeKey,
  drift,
  since,
  insideUntil,
  today,
  months,
}: {
  visits: readonly Visit[];
  /** Of the range in force. */
  rangeKey: string;
  drift: DriftFigures | null;
  /** ISO date of the last step or change of its drift. */
  since: string | null;
  insideUntil: string | null;
  today: string;
  /** The interval in force. */
  months: number;
}) {
  const present = followedVisits(visits, rangeKey, since === null ? null : dayNumber(since));
  const rows = [
    { what: 'zero', rate: rateOf(followedZero(present)) },
    { what: 'span', rate: rateOf(followedSpan(present)) },
  ].flatMap(({ what, rate }) => (rate === null ? [] : [{ what, ...rate }]));
  const lead =
    drift === null ? undefined : pointDrifts(followedPoints(present)).find(({ at }) => at === drift.at);
  return (
    <Sheet
      title="Drift, adjustments taken out"
      aside={since === null ? '% of span a year' : `% of span a year, since ${showDate(since)}`}
    >
      <DataTable
        label="Drift of zero and span"
        rows={rows}
        keyOf={({ what }) => what}
        none="Two calibrations in one range are the least that show a drift."
        columns={[
          ['Of its', ({ what }) => what],
          ['Steps', ({ steps }) => steps, 'right'],
          ['Sum over time', ({ totalOverTime }) => <Figure>{percent(totalOverTime)}</Figure>, 'right'],
          [
            'Long steps count more',
            ({ throughOrigin }) => <Figure>{percent(throughOrigin)}</Figure>,
            'right',
          ],
        ]}
      />
      {drift === null ? (
        <Typography variant="body2" sx={{ mt: 1, color: 'text.secondary' }}>
          From {LEAST_OF_DRIFT} calibrations in one range and without a step on, a line through them says
          where it leads.
        </Typography>
      ) : (
        <Typography variant="body2" sx={{ mt: 1 }}>
          At {formatPlain(drift.at)} % of span, which leads out first:{' '}
          <Figure>{percent(drift.slopePerYear)}</Figure> a year, standard error{' '}
          <Figure>{formatPlain(Number(drift.slopeStandardErrorPerYear.toPrecision(2)))}</Figure>, from{' '}
          {drift.calibrations} calibrations.{' '}
          {boundsInWords(
            insideUntil,
            drift.lastDayBelowAdjust === null ? null : dateOfDay(drift.lastDayBelowAdjust),
            today,
          )}
        </Typography>
      )}
      {lead !== undefined && (
        <Working of={`the drift, to the end of ${months} months`} steps={workDrift(lead, months)} />
      )}
    </Sheet>
  );
}
