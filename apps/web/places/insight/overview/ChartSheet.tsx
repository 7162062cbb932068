'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import type { Chart } from 'chart.js';
import Link from 'next/link';
import { useRef, type ComponentProps } from 'react';
import { DataTable } from '@/ui/DataTable';
import { saveCsv } from '@/ui/saveCsv';
import { Sheet } from '@/ui/Sheet';
import { useLater } from '@/ui/useLater';
import type { ChartShape } from './chartShape';

const loadChart = () => import('./InsightChart');

/** A figure with the table behind it; the first cell of a line leads to its list. */
export interface FigureTable {
  readonly header: readonly string[];
  readonly rows: readonly { readonly cells: readonly string[]; readonly href: string | null }[];
}

const quoted = (cell: string): string => (/[",\n]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell);

/** What a spreadsheet takes: the mark at its beginning tells it that this is UTF-8. */
const csvOf = ({ header, rows }: FigureTable): string =>
  `\uFEFF${[header, ...rows.map(({ cells }) => cells)].map((cells) => cells.map(quoted).join(',')).join('\r\n')}\r\n`;

function savePicture(name: string, chart: Chart<'bar'>): void {
  const link = document.createElement('a');
  link.href = chart.toBase64Image('image/png');
  link.download = name;
  link.click();
}

type Row = FigureTable['rows'][number];

/** Figures stand to the right; the first cell of a line leads to its list. */
const columnsOf = ({ header }: FigureTable): ComponentProps<typeof DataTable<Row>>['columns'] =>
  header.map((heading, column) => {
    if (column > 0) return [heading, ({ cells }) => cells[column], 'right'];
    return [
      heading,
      ({ cells, href }) =>
        href === null ? (
          cells[0]
        ) : (
          <Link prefetch={false} href={href}>
            {cells[0]}
          </Link>
        ),
    ];
  });

/** A chart with its table behind it, to be kept as CSV and PNG. */
export function ChartSheet({
  title,
  about,
  name,
  shape,
  table,
  none,
  height = 220,
}: {
  title: string;
  about: string;
  /** Of the files, without their ends. */
  name: string;
  shape: ChartShape;
  table: FigureTable;
  /** What will stand there while there is nothing. */
  none: string;
  height?: number;
}) {
  const part = useLater(loadChart);
  const chart = useRef<Chart<'bar'> | null>(null);
  const isEmpty = shape.values.every((value) => value === null || value === 0);
  return (
    <Sheet title={title}>
      <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1 }}>
        {about}
      </Typography>
      {isEmpty && table.rows.length === 0 ? (
        <Typography sx={{ color: 'text.secondary' }}>{none}</Typography>
      ) : (
        <>
          <Box sx={{ height, position: 'relative', overflow: 'hidden' }}>
            {part === 'away' &&
              'The drawing cannot be shown while the server is away. The figures are in the table.'}
            {part !== null && part !== 'away' && (
              <part.InsightChart shape={shape} title={title} chart={chart} />
            )}
          </Box>
          <Stack direction="row" sx={{ gap: 1, my: 0.5, '@media print': { display: 'none' } }}>
            <Button
              size="small"
              aria-label={`${title} as CSV`}
              onClick={() => saveCsv(`${name}.csv`, csvOf(table))}
            >
              CSV
            </Button>
            <Button
              size="small"
              aria-label={`${title} as PNG`}
              onClick={() => chart.current !== null && savePicture(`${name}.png`, chart.current)}
            >
              PNG
            </Button>
          </Stack>
          <details>
            <summary style={{ minHeight: 32, cursor: 'pointer' }}>The figures of “{title}”</summary>
            <DataTable
              label={title}
              rows={table.rows}
              keyOf={({ cells }) => cells[0] ?? ''}
              columns={columnsOf(table)}
            />
          </details>
        </>
      )}
    </Sheet>
  );
}
