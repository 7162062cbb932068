import Stack from '@mui/material/Stack';
import Link from 'next/link';

/** Months that the figures can reach back. */
export const PERIODS = [12, 24, 60] as const;

/** The choice of a period. */
export function PeriodLinks({ months }: { months: number }) {
  return (
    <Stack component="nav" aria-label="Period" direction="row" sx={{ gap: 1.5 }}>
      {PERIODS.map((period) => (
        <Link
          key={period}
          prefetch={false}
          href={`/insight?months=${period}`}
          aria-current={period === months ? 'page' : undefined}
          style={{ fontWeight: period === months ? 700 : 400, lineHeight: '44px', color: 'inherit' }}
        >
          {period} months
        </Link>
      ))}
    </Stack>
  );
}
