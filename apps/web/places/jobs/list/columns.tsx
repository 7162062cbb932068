/** The columns of the list of jobs. */
import type { JobLine } from '@barys/store/jobs';
import type { JobQuery } from '@barys/store/shapes';
import Link from 'next/link';
import { showDate, showMoment } from '@/server/dates';
import type { ListColumn } from '@/ui/ListTable';
import { VerdictMark } from '@/ui/VerdictMark';
import { REASON_WORD, STAGE_WORD } from '../words';

export type JobKey =
  | JobQuery['sort']
  | 'service'
  | 'area'
  | 'reason'
  | 'stage'
  | 'found'
  | 'left'
  | 'who'
  | 'end';

export const JOB_COLUMNS: readonly ListColumn<JobLine, JobKey>[] = [
  {
    key: 'id',
    heading: 'Job',
    isAlways: true,
    cell: ({ id }) => (
      <Link prefetch={false} href={`/jobs/${id}`}>
        {id}
      </Link>
    ),
  },
  {
    key: 'tag',
    heading: 'Instrument',
    cell: ({ tag }) => (
      <Link prefetch={false} href={`/instruments/${encodeURIComponent(tag)}`}>
        {tag}
      </Link>
    ),
  },
  { key: 'service', heading: 'Service', isOrdered: false, cell: ({ service }) => service },
  { key: 'area', heading: 'Area', isOrdered: false, cell: ({ area }) => area },
  { key: 'reason', heading: 'Why', isOrdered: false, cell: ({ reason }) => REASON_WORD[reason] },
  { key: 'stage', heading: 'Stage', isOrdered: false, cell: ({ stage }) => STAGE_WORD[stage] },
  {
    key: 'found',
    heading: 'As found',
    isOrdered: false,
    cell: ({ asFoundVerdict }) => asFoundVerdict !== null && <VerdictMark verdict={asFoundVerdict} isShort />,
  },
  {
    key: 'left',
    heading: 'As left',
    isOrdered: false,
    cell: ({ asLeftVerdict }) => asLeftVerdict !== null && <VerdictMark verdict={asLeftVerdict} isShort />,
  },
  {
    key: 'who',
    heading: 'Who',
    isOrdered: false,
    cell: ({ signedBy, cancelledBy, openedBy }) => signedBy ?? cancelledBy ?? openedBy,
  },
  { key: 'openedAt', heading: 'Opened', cell: ({ openedAt }) => showMoment(openedAt) },
  {
    key: 'signedAt',
    heading: 'Signed',
    cell: ({ signedAt }) => (signedAt === null ? '' : showDate(signedAt)),
  },
  {
    key: 'end',
    heading: 'How it ended',
    isOrdered: false,
    cell: ({ cancelledAt, cancelReason, remark }) =>
      cancelledAt === null ? remark : `cancelled ${showDate(cancelledAt)}: ${cancelReason}`,
  },
];

const USUAL: readonly JobKey[] = [
  'id',
  'tag',
  'service',
  'reason',
  'stage',
  'found',
  'left',
  'who',
  'openedAt',
  'end',
];

/** Columns as the address says them; nothing is the usual ones. */
export function shownJobColumns(text: string): readonly JobKey[] {
  if (text === '') return USUAL;
  const chosen = ['id', ...text.split('.')];
  return JOB_COLUMNS.map(({ key }) => key).filter((key) => chosen.includes(key));
}

export const jobColumnsText = (shown: readonly JobKey[]): string =>
  JOB_COLUMNS.map(({ key }) => key)
    .filter((key) => shown.includes(key) && key !== 'id')
    .join('.');
