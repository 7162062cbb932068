/** The columns of the list of instruments. */
import { formatPlain } from '@barys/core/text';
import { unitLabel } from '@barys/core/units';
import type { InstrumentLine, ListOrder } from '@barys/store/registers';
import Link from 'next/link';
import { dueInWords } from '@/server/dates';
import { Figure } from '@/ui/Figure';
import type { ListColumn } from '@/ui/ListTable';

export type ListKey = ListOrder | 'range' | 'model';

export const columnsFor = (today: string): ListColumn<InstrumentLine, ListKey>[] => [
  {
    key: 'tag',
    heading: 'Tag',
    isAlways: true,
    cell: ({ tag }) => (
      <Link prefetch={false} href={`/instruments/${encodeURIComponent(tag)}`}>
        {tag}
      </Link>
    ),
  },
  { key: 'service', heading: 'Service', cell: ({ service }) => service },
  { key: 'area', heading: 'Area', cell: ({ area }) => area },
  { key: 'walk', heading: 'Walk', isNumber: true, cell: ({ walk }) => walk },
  { key: 'measures', heading: 'Measures', cell: ({ measures }) => measures },
  { key: 'kind', heading: 'Kind', cell: ({ kind }) => kind },
  { key: 'model', heading: 'Body', isOrdered: false, cell: ({ model }) => model },
  {
    key: 'range',
    heading: 'Range',
    isOrdered: false,
    cell: ({ range }) => (
      <Figure>
        {formatPlain(range.lrv)} … {formatPlain(range.urv)} {unitLabel(range.inputUnit)}
      </Figure>
    ),
  },
  {
    key: 'tolerance',
    heading: 'Tolerance',
    cell: ({ tolerancePercentOfSpan }) => <Figure>±{formatPlain(tolerancePercentOfSpan)} %</Figure>,
  },
  { key: 'loop', heading: 'Loop', cell: ({ loop }) => loop },
  { key: 'criticality', heading: 'Criticality', cell: ({ criticality }) => criticality },
  { key: 'serial', heading: 'Serial', cell: ({ serial }) => serial },
  { key: 'owner', heading: 'Owner', cell: ({ owner }) => owner },
  { key: 'state', heading: 'State', cell: ({ state }) => state },
  { key: 'intervalMonths', heading: 'Interval', cell: ({ intervalMonths }) => `${intervalMonths} mo` },
  {
    key: 'dueOn',
    heading: 'Due',
    cell: ({ state, dueOn }) => (state === 'retired' ? '—' : dueInWords(dueOn, today)),
  },
];

const KEYS = columnsFor('').map(({ key }) => key);

/** Shown until somebody chooses others. */
const USUAL: readonly ListKey[] = ['tag', 'service', 'area', 'range', 'tolerance', 'owner', 'state', 'dueOn'];

/** Columns as the address says them; nothing is the usual ones. */
export function shownColumns(text: string): readonly ListKey[] {
  if (text === '') return USUAL;
  const chosen = ['tag', ...text.split('.')];
  return KEYS.filter((key) => chosen.includes(key));
}

export const columnsText = (shown: readonly ListKey[]): string =>
  KEYS.filter((key) => shown.includes(key) && key !== 'tag').join('.');
