'use client';
import type { DueStanding } from '@barys/store/planning';
import Box from '@mui/material/Box';
import Link from 'next/link';

const link = (due: string): string => `/instruments?${new URLSearchParams({ state: 'in service', due })}`;

/** How many are late, in grace and due soon; each figure opens its list. */
export function DueCounts({ standing, graceDays }: { standing: DueStanding; graceDays: number }) {
  const figures: readonly (readonly [count: number, words: string, due: string])[] = [
    [standing.late, graceDays === 0 ? 'overdue' : 'overdue past grace', 'late'],
    ...(graceDays === 0 ? [] : [[standing.inGrace, 'overdue, in grace', 'grace'] as const]),
    [standing.week, 'due in 7 days', '7'],
    [standing.month, 'due in 30 days', '30'],
  ];
  return (
    <Box
      component="ul"
      aria-label="Due"
      sx={{ listStyle: 'none', m: 0, p: 0, display: 'flex', flexWrap: 'wrap', columnGap: 2.5 }}
    >
      {figures.map(([count, words, due]) => (
        <Box component="li" key={due}>
          <Box
            component={Link}
            prefetch={false}
            href={link(due)}
            sx={{ display: 'flex', gap: 0.75, minHeight: 44, alignItems: 'center', textDecoration: 'none' }}
          >
            <Box component="strong" sx={{ color: due === 'late' && count > 0 ? 'var(--now)' : 'inherit' }}>
              {count.toLocaleString('en')}
            </Box>
            <Box component="span" sx={{ textDecoration: 'underline' }}>
              {words}
            </Box>
          </Box>
        </Box>
      ))}
    </Box>
  );
}
