'use client';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import dayjs from 'dayjs';
import type { Board, Use } from './shape';
import { gridOf } from './WeekBoard';
import { clockAt, dayWord } from './words';

/** Longest day that a column shows, so that a bar says how much of it a reference is away. */
const LEAST_DAY_MIN = 480;

/** The references that are taken along: when, and where they are wanted twice. */
export function ReferenceBars({ board: { bars, days, people, dayBegins } }: { board: Board }) {
  if (bars.length === 0) return null;
  const length = Math.max(LEAST_DAY_MIN, ...people.flatMap(({ minutes, used }) => [...minutes, ...used]));
  const words = ({ tag, day, from, to, isClash }: Use): string =>
    `${dayWord(day)} ${clockAt(dayBegins, from)} to ${clockAt(dayBegins, to)} at ${tag}${isClash ? ', clashes' : ''}`;
  return (
    <Box component="section" aria-label="References" sx={{ mt: 1.5 }}>
      <Typography variant="h3" sx={{ mb: 0.5 }}>
        References
      </Typography>
      {bars.map(({ reference, until, uses }) => (
        <Box
          key={reference}
          role="group"
          aria-label={`${reference}: ${uses.map(words).join('; ')}`}
          sx={{ display: 'grid', gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: gridOf(days.length) } }}
        >
          <Typography variant="body2" sx={{ whiteSpace: 'nowrap' }}>
            <strong>{reference}</strong>{' '}
            <Box component="span" sx={{ color: 'text.secondary', fontSize: 12 }}>
              {until === null ? '' : `to ${dayjs(until).format('D MMM YY')}`}
            </Box>
          </Typography>
          {days.map(({ day }) => (
            <Box
              key={day}
              sx={{
                position: 'relative',
                borderLeft: '1px solid var(--rule)',
                minHeight: 22,
                display: { xs: 'none', md: 'block' },
              }}
            >
              {uses
                .filter((use) => use.day === day)
                .map((use) => (
                  <Box
                    key={`${use.tag} ${use.from}`}
                    title={words(use)}
                    sx={{
                      position: 'absolute',
                      top: 5,
                      height: 12,
                      left: `${(use.from / length) * 100}%`,
                      width: `${((use.to - use.from) / length) * 100}%`,
                      background: use.isClash ? 'var(--outside)' : 'var(--ink)',
                      borderRight: '1px solid var(--sheet)',
                    }}
                  />
                ))}
            </Box>
          ))}
          <Typography variant="body2" sx={{ display: { md: 'none' }, color: 'text.secondary' }}>
            {uses.map(words).join('; ')}
          </Typography>
        </Box>
      ))}
    </Box>
  );
}
