'use client';
/** A long list: ordered and paged by the server, its columns chosen by whoever reads it. */
import ViewColumnOutlined from '@mui/icons-material/ViewColumnOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableContainer from '@mui/material/TableContainer';
import TableHead from '@mui/material/TableHead';
import TablePagination from '@mui/material/TablePagination';
import TableRow from '@mui/material/TableRow';
import TableSortLabel from '@mui/material/TableSortLabel';
import Typography from '@mui/material/Typography';
import type { SystemStyleObject, Theme } from '@mui/system';
import { useState, type ReactNode } from 'react';

export interface ListColumn<Row, Key extends string> {
  readonly key: Key;
  readonly heading: string;
  readonly cell: (row: Row) => ReactNode;
  /** False where the server cannot order by it. */
  readonly isOrdered?: false;
  readonly isNumber?: true;
  /** True of the column without which a row would have no name. */
  readonly isAlways?: true;
}

const NOTHING: ReadonlySet<number> = new Set();

interface ListRow {
  readonly id: number;
  readonly tag: string;
}

export interface ListTableProps<Row extends ListRow, Key extends string> {
  label: string;
  rows: readonly Row[];
  columns: readonly ListColumn<Row, Key>[];
  /** Keys of the columns that are shown. */
  shown: readonly Key[];
  sort: string;
  dir: 'asc' | 'desc';
  total: number;
  page: number;
  size: number;
  sizes: readonly number[];
  isPending: boolean;
  /** Rows that are chosen, and how; left out where nothing is done to several at once. */
  chosen?: ReadonlySet<number>;
  choose?: (ids: ReadonlySet<number>) => void;
  onSort: (sort: Key, dir: 'asc' | 'desc') => void;
  onShown: (shown: readonly Key[]) => void;
  onPage: (page: number) => void;
  onSize: (size: number) => void;
  /** What to say where there is no row. */
  none: string;
}

/** A box to tick, drawn by the sheet of styles alone: a list has one a line. */
const BOX: SystemStyleObject<Theme> = {
  appearance: 'none',
  display: 'grid',
  placeContent: 'center',
  width: 18,
  height: 18,
  m: 0,
  border: '2px solid var(--muted)',
  borderRadius: '2px',
  '&:checked, &:indeterminate': { borderColor: 'var(--ink)', bgcolor: 'var(--ink)' },
  '&::before': { content: '""', bgcolor: 'var(--paper)' },
  '&:checked::before': {
    width: 12,
    height: 12,
    clipPath: 'polygon(14% 46%, 0 60%, 38% 96%, 100% 20%, 86% 8%, 37% 68%)',
  },
  '&:indeterminate::before': { width: 10, height: 2, clipPath: 'none' },
  // Where people have chosen their own few colours, the browser draws it in them.
  '@media (forced-colors: active)': { appearance: 'auto' },
};

const ROWS: SystemStyleObject<Theme> = {
  '& th, & > tbody > tr > td': { whiteSpace: 'nowrap', height: 40, py: 0 },
  '@media (pointer: coarse)': { '& > tbody > tr > td': { height: 48 } },
  '& > tbody > tr:hover': { bgcolor: 'action.hover' },
  '& > tbody > tr[data-chosen]': { bgcolor: 'action.selected' },
  // As large as its cell, for thumbs.
  '& :is(th, td):has(> label)': { px: 0.75, width: 52 },
  '& label': { display: 'grid', placeItems: 'center', width: 40, height: '100%', minHeight: 38 },
  '& input[type="checkbox"]': BOX,
};

export function ListTable<Row extends ListRow, Key extends string>(props: ListTableProps<Row, Key>) {
  const { label, rows, shown, isPending, chosen = NOTHING, choose, none } = props;
  const columns = props.columns.filter(({ key, isAlways }) => isAlways === true || shown.includes(key));
  const toggle = (ids: readonly number[], isOn: boolean) => {
    const next = new Set(chosen);
    for (const id of ids)
      if (isOn) next.add(id);
      else next.delete(id);
    choose?.(next);
  };
  return (
    <>
      <TableContainer
        sx={{ height: 'max(330px, calc(100vh - 250px))', opacity: isPending ? 0.6 : 1 }}
        tabIndex={0}
        role="region"
        aria-label={`${label}, the list`}
        aria-busy={isPending}
      >
        <Table size="small" stickyHeader aria-label={label} sx={ROWS}>
          <Head {...props} columns={columns} toggle={toggle} />
          <TableBody>
            {rows.map((row) => (
              <tr key={row.id} data-chosen={chosen.has(row.id) || undefined}>
                {choose !== undefined && (
                  <td>
                    <Choice
                      label={`Choose ${row.tag}`}
                      isChosen={chosen.has(row.id)}
                      onChange={(isOn) => toggle([row.id], isOn)}
                    />
                  </td>
                )}
                {columns.map(({ key, cell, isNumber }) => (
                  <td key={key} data-side={isNumber === true ? 'right' : undefined}>
                    {cell(row)}
                  </td>
                ))}
              </tr>
            ))}
          </TableBody>
        </Table>
        {rows.length === 0 && <Typography sx={{ p: 2, color: 'text.secondary' }}>{none}</Typography>}
      </TableContainer>
      <Foot {...props} />
    </>
  );
}

function Choice({
  label,
  isChosen,
  isPartly = false,
  onChange,
}: {
  label: string;
  isChosen: boolean;
  /** Some of those that it stands for are chosen. */
  isPartly?: boolean;
  onChange: (isOn: boolean) => void;
}) {
  return (
    <label>
      <input
        type="checkbox"
        aria-label={label}
        checked={isChosen}
        ref={(box) => {
          if (box !== null) box.indeterminate = isPartly;
        }}
        onChange={({ target }) => onChange(target.checked)}
      />
    </label>
  );
}

function Head<Row extends ListRow, Key extends string>({
  columns,
  rows,
  chosen = NOTHING,
  choose,
  sort,
  dir,
  onSort,
  toggle,
}: ListTableProps<Row, Key> & { toggle: (ids: readonly number[], isOn: boolean) => void }) {
  const ids = rows.map(({ id }) => id);
  const count = ids.filter((id) => chosen.has(id)).length;
  return (
    <TableHead>
      <TableRow>
        {choose !== undefined && (
          <TableCell>
            <Choice
              label="Choose all on this page"
              isChosen={count > 0 && count === ids.length}
              isPartly={count > 0 && count < ids.length}
              onChange={(isOn) => toggle(ids, isOn)}
            />
          </TableCell>
        )}
        {columns.map(({ key, heading, isOrdered, isNumber }) => (
          <TableCell
            key={key}
            align={isNumber === true ? 'right' : 'left'}
            sortDirection={sort === key ? dir : false}
          >
            {isOrdered === false ? (
              heading
            ) : (
              <TableSortLabel
                active={sort === key}
                direction={sort === key ? dir : 'asc'}
                onClick={() => onSort(key, sort === key && dir === 'asc' ? 'desc' : 'asc')}
              >
                {heading}
              </TableSortLabel>
            )}
          </TableCell>
        ))}
      </TableRow>
    </TableHead>
  );
}

function Foot<Row extends ListRow, Key extends string>({
  columns,
  shown,
  total,
  page,
  size,
  sizes,
  onShown,
  onPage,
  onSize,
}: ListTableProps<Row, Key>) {
  return (
    <Stack
      direction="row"
      sx={{ borderTop: '1px solid var(--rule)', alignItems: 'center', flexWrap: 'wrap', pl: 0.5 }}
    >
      <ColumnMenu columns={columns} shown={shown} onShown={onShown} />
      <Box sx={{ flex: 1 }} />
      <TablePagination
        component="div"
        count={total}
        // A page behind the last one is asked for where lines were taken away meanwhile.
        page={Math.min(page, Math.max(0, Math.ceil(total / size) - 1))}
        rowsPerPage={size}
        rowsPerPageOptions={[...sizes]}
        labelRowsPerPage="Lines on a page"
        labelDisplayedRows={({ from, to, count }) => `${from} to ${to} of ${count}`}
        onPageChange={(_, wanted) => onPage(wanted)}
        onRowsPerPageChange={({ target }) => onSize(Number(target.value))}
        showFirstButton
        showLastButton
      />
    </Stack>
  );
}

function ColumnMenu<Row, Key extends string>({
  columns,
  shown,
  onShown,
}: {
  columns: readonly ListColumn<Row, Key>[];
  shown: readonly Key[];
  onShown: (shown: readonly Key[]) => void;
}) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <Button
        size="small"
        startIcon={<ViewColumnOutlined fontSize="small" />}
        aria-haspopup="menu"
        aria-expanded={anchor !== null}
        onClick={({ currentTarget }) => setAnchor(currentTarget)}
      >
        Columns
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        {columns
          .filter(({ isAlways }) => isAlways !== true)
          .map(({ key, heading }) => (
            <MenuItem
              key={key}
              role="menuitemcheckbox"
              aria-checked={shown.includes(key)}
              onClick={() =>
                onShown(shown.includes(key) ? shown.filter((one) => one !== key) : [...shown, key])
              }
              sx={{ py: 0 }}
            >
              <Checkbox size="small" checked={shown.includes(key)} tabIndex={-1} aria-hidden />
              {heading}
            </MenuItem>
          ))}
      </Menu>
    </>
  );
}
