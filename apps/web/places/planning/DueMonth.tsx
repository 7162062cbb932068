'use client';
import Box from '@mui/material/Box';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import type { DayCount } from '@barys/store/planning';
import dayjs from 'dayjs';
import Link from 'next/link';
import { weeksOf } from './month';
import { dayWord } from './words';

const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;

function Day({
  day,
  count,
  isOfMonth,
  today,
  chosen,
}: {
  day: string;
  count: DayCount | undefined;
  isOfMonth: boolean;
  today: string;
  chosen: string | null;
}) {
  const isLate = day < today && count !== undefined;
  const words = count === undefined ? '' : `${count.due} due, ${count.planned} of them planned`;
  const face = (
    <>
      <Box component="span" sx={{ display: 'block', fontSize: 13, color: 'text.secondary' }}>
        {dayjs(day).date()}
        {day === today && ' today'}
      </Box>
      {count !== undefined && (
        <Box component="span" sx={{ display: 'block', lineHeight: 1.2, fontWeight: 700 }}>
          {count.due.toLocaleString('en')}{' '}
          <Box component="span" sx={{ fontWeight: 400, fontSize: 13, display: { xs: 'none', sm: 'inline' } }}>
            {isLate ? 'overdue' : 'due'}
            {count.planned > 0 && `, ${count.planned.toLocaleString('en')} planned`}
          </Box>
        </Box>
      )}
    </>
  );
  return (
    <TableCell
      sx={{
        verticalAlign: 'top',
        p: 0,
        height: 56,
        width: `${100 / 7}%`,
        borderLeft: '1px solid var(--rule)',
        background: day === chosen ? 'var(--wash)' : isOfMonth ? 'transparent' : 'var(--paper)',
        boxShadow: day === today ? 'inset 0 3px 0 var(--now)' : 'none',
      }}
    >
      {count === undefined ? (
        <Box sx={{ p: 0.75 }}>{face}</Box>
      ) : (
        <Box
          component={Link}
          prefetch={false}
          href={`/planning/due?${new URLSearchParams({ month: day.slice(0, 7), day })}`}
          aria-label={`${dayWord(day)}: ${words}`}
          aria-current={day === chosen ? 'date' : undefined}
          sx={{ display: 'block', p: 0.75, minHeight: 56, textDecoration: 'none' }}
        >
          {face}
        </Box>
      )}
    </TableCell>
  );
}

/** The calendar of what comes due: a figure a day, which opens the list of that day. */
export function DueMonth({
  month,
  counts,
  today,
  chosen,
}: {
  /** `2026-05` */
  month: string;
  counts: readonly DayCount[];
  today: string;
  chosen: string | null;
}) {
  const byDay = new Map(counts.map((count) => [count.day, count]));
  return (
    <Table
      size="small"
      aria-label={`What comes due in ${dayjs(`${month}-01`).format('MMMM YYYY')}`}
      sx={{ tableLayout: 'fixed' }}
    >
      <TableHead>
        <TableRow>
          {WEEKDAYS.map((name) => (
            <TableCell key={name}>{name}</TableCell>
          ))}
        </TableRow>
      </TableHead>
      <TableBody>
        {weeksOf(month).map((week) => (
          <TableRow key={week[0]}>
            {week.map((day) => (
              <Day
                key={day}
                day={day}
                count={byDay.get(day)}
                isOfMonth={day.startsWith(month)}
                today={today}
                chosen={chosen}
              />
            ))}
          </TableRow>
        ))}
      </TableBody>
    </Table>
  );
}
