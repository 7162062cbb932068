'use client';
/** What the readings of a loop say: which item is likely wrong, what to measure next, and what a trim would do. */
import { formatFixed, formatSigned } from '@barys/core/text';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { DataTable } from '@/ui/DataTable';
import { Figure } from '@/ui/Figure';
import { Sheet } from '@/ui/Sheet';
import { LIKELY, trimEffect, type LoopResult } from './compute';

const percent = (probability: number): string =>
  probability > 0.995 ? 'more than 99 %' : `${formatFixed(probability * 100, 0)} %`;

export function Findings({ result }: { result: LoopResult }) {
  const { diagnosis, next, whyNot, items } = result;
  const trim = trimEffect(result);
  const [best] = diagnosis?.suspicions ?? [];
  const nameOf = (item: number | null) => (item === null ? 'none' : (items[item]?.name ?? ''));
  // Those that are at least half as likely as the likeliest.
  const alike = (diagnosis?.suspicions ?? [])
    .filter(({ probability }) => probability >= (best?.probability ?? 1) / 2)
    .map(({ item }) => (item === null ? 'nothing wrong' : nameOf(item)));
  const headline =
    diagnosis === null || best === undefined
      ? whyNot === ''
        ? 'Type what was read at some taps.'
        : whyNot
      : best.item === null
        ? `All inside their tolerances (${percent(best.probability)})`
        : best.probability < LIKELY
          ? `Cannot tell yet: ${alike.join(' or ')}`
          : `${nameOf(best.item)}, ${percent(best.probability)}`;
  return (
    <Box
      sx={{ display: 'grid', gap: 1.5, gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: '1.2fr 1fr 1fr' } }}
    >
      <Sheet title={headline}>
        {best?.offPercent != null && best.item !== null && best.probability >= LIKELY && (
          <Typography sx={{ mb: 1 }}>
            It is off by <Figure>{formatSigned(best.offPercent, 2)}</Figure> ±{' '}
            <Figure>{formatFixed(2 * (best.uncertaintyPercent ?? 0), 2)}</Figure> % of its span; its limit is{' '}
            <Figure>{formatFixed(items[best.item]?.tolerancePercent ?? 0, 2)}</Figure> %.
          </Typography>
        )}
        {diagnosis !== null && (
          <DataTable
            label="Who is wrong, by probability"
            rows={diagnosis.suspicions.slice(0, 6)}
            keyOf={({ item }) => String(item)}
            columns={[
              ['Item', ({ item }) => nameOf(item)],
              ['Probability', ({ probability }) => <Figure>{percent(probability)}</Figure>, 'right'],
            ]}
          />
        )}
      </Sheet>
      <Sheet
        title={
          next === null
            ? 'Nothing more to measure'
            : `Measure ${diagnosis === null ? 'first' : 'next'}: ${nameOf(next.item)}`
        }
      >
        <Typography sx={{ color: 'text.secondary' }}>
          {next === null
            ? 'No other tap would tell more.'
            : `It takes away most of the doubt: ${formatFixed(next.bits, 2)} of ${formatFixed(result.doubt, 2)} bits.`}
        </Typography>
      </Sheet>
      <Sheet title={trim === null ? 'A transmitter and its receivers' : 'Never trim the transmitter to this'}>
        {trim === null ? (
          <Typography sx={{ color: 'text.secondary' }}>
            A transmitter is never adjusted to a receiver that is not itself proven: every other receiver
            would be wrong by it.
          </Typography>
        ) : (
          <Alert severity="warning" variant="outlined">
            Trimmed by {formatSigned(trim.percent, 2)} % of its span until {trim.receiver} agrees,{' '}
            {trim.others.length === 0
              ? 'whatever is put behind it later would be wrong.'
              : `${trim.others.map((one) => `${one.name} would be ${formatSigned(one.percent, 2)} % off`).join(', ')}.`}
          </Alert>
        )}
      </Sheet>
    </Box>
  );
}
