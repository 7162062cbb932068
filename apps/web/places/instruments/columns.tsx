/** The columns of the list of instruments. */
import { formatPlain } from '@barys/core/text';
import { PRESSURE_UNITS } from '@barys/core/units';
import type { InstrumentLine, ListOrder } from '@barys/store/registers';
import type { GridColDef } from '@mui/x-data-grid';
import Link from 'next/link';
import { dueInWords } from '@/server/dates';
import { Figure } from '@/ui/Figure';

type Column = GridColDef<InstrumentLine> & { field: ListOrder | 'range' | 'model' };

export const columnsFor = (today: string): Column[] => [
  {
    field: 'tag',
    headerName: 'Tag',
    width: 110,
    hideable: false,
    renderCell: ({ row }) => (
      <Link prefetch={false} href={`/instruments/${encodeURIComponent(row.tag)}`}>
        {row.tag}
      </Link>
    ),
  },
  { field: 'service', headerName: 'Service', flex: 1, minWidth: 190 },
  { field: 'area', headerName: 'Area', width: 160 },
  { field: 'walk', headerName: 'Walk', width: 70, type: 'number' },
  { field: 'measures', headerName: 'Measures', width: 150 },
  { field: 'kind', headerName: 'Kind', width: 110 },
  { field: 'model', headerName: 'Body', width: 190, sortable: false },
  {
    field: 'range',
    headerName: 'Range',
    width: 190,
    sortable: false,
    renderCell: ({ row: { range } }) => (
      <Figure>
        {formatPlain(range.lrv)} … {formatPlain(range.urv)} {PRESSURE_UNITS[range.inputUnit].label}
      </Figure>
    ),
  },
  {
    field: 'tolerance',
    headerName: 'Tolerance',
    width: 110,
    renderCell: ({ row }) => <Figure>±{formatPlain(row.tolerancePercentOfSpan)} %</Figure>,
  },
  { field: 'loop', headerName: 'Loop', width: 90 },
  { field: 'criticality', headerName: 'Criticality', width: 120 },
  { field: 'serial', headerName: 'Serial', width: 110 },
  { field: 'owner', headerName: 'Owner', width: 130 },
  { field: 'state', headerName: 'State', width: 95 },
  {
    field: 'intervalMonths',
    headerName: 'Interval',
    width: 90,
    renderCell: ({ row }) => `${row.intervalMonths} mo`,
  },
  {
    field: 'dueOn',
    headerName: 'Due',
    width: 130,
    renderCell: ({ row }) => (row.state === 'retired' ? '—' : dueInWords(row.dueOn, today)),
  },
];

/** Shown until somebody chooses others. */
const USUAL = ['tag', 'service', 'area', 'range', 'tolerance', 'owner', 'state', 'dueOn'];

/** Columns as the address says them; nothing is the usual ones. */
export function visibleColumns(text: string): Record<string, boolean> {
  const chosen = text === '' ? USUAL : ['tag', ...text.split('.')];
  return Object.fromEntries(columnsFor('').map(({ field }) => [field, chosen.includes(field)]));
}

export function columnsText(model: Readonly<Record<string, boolean>>): string {
  const shown = columnsFor('')
    .map(({ field }) => field as string)
    .filter((field) => model[field] !== false && field !== 'tag');
  return shown.join('.');
}
