'use client';
/**
 * A loop as one long stave: a rail for the output of each item, the signal as it should stand on all of them, and what was read.
 * Items change places by dragging their handle, or with the space bar and the arrow keys.
 */
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  MeasuringStrategy,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { formatSigned } from '@barys/core/text';
import DragIndicatorOutlined from '@mui/icons-material/DragIndicatorOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import { Figure } from '@/ui/Figure';
import { NumberField } from '@/ui/NumberField';
import { VerdictMark } from '@/ui/VerdictMark';
import type { Tap } from './compute';
import type { ItemFields } from './fields';

/** The rail reaches a little beyond the range, so that what is over it is still seen. */
const [LOW, HIGH] = [-0.06, 1.06];
const across = (share: number): string =>
  `${((Math.min(HIGH, Math.max(LOW, share)) - LOW) / (HIGH - LOW)) * 100}%`;

const READ_INK = { within: 'var(--within)', outside: 'var(--outside)', 'not-judged': 'var(--ink)' } as const;

interface RowProps {
  item: ItemFields;
  /** Null while the loop cannot be worked out. */
  tap: Tap | null;
  isSuspect: boolean;
  isNext: boolean;
  isOpen: boolean;
  readError: string | null;
  onOpen: () => void;
  onRead: (text: string) => void;
  children: ReactNode;
}

export function LoopStave({
  rows,
  onMove,
  onGrab,
}: {
  rows: readonly RowProps[];
  onMove: (id: string, to: string) => void;
  /** An item was taken hold of: what is open is closed, so that all rows are of one height while they change places. */
  onGrab: () => void;
}) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (over !== null && active.id !== over.id) onMove(String(active.id), String(over.id));
  };
  return (
    <DndContext
      id="loop"
      sensors={sensors}
      collisionDetection={closestCenter}
      measuring={{ droppable: { strategy: MeasuringStrategy.Always } }}
      onDragStart={onGrab}
      onDragEnd={onDragEnd}
    >
      <SortableContext items={rows.map(({ item }) => item.id)} strategy={verticalListSortingStrategy}>
        <Box component="ol" aria-label="Items of the loop" sx={{ listStyle: 'none', m: 0, p: 0 }}>
          {rows.map((row) => (
            <Row key={row.item.id} {...row} />
          ))}
        </Box>
      </SortableContext>
    </DndContext>
  );
}

function Row({ item, tap, isSuspect, isNext, isOpen, readError, onOpen, onRead, children }: RowProps) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition } = useSortable({
    id: item.id,
  });
  return (
    <Box
      component="li"
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      sx={{ borderBottom: '1px solid var(--rule)', bgcolor: 'var(--sheet)' }}
    >
      <Box
        sx={{
          display: 'grid',
          alignItems: 'center',
          columnGap: 1.5,
          rowGap: 0.5,
          py: 0.5,
          gridTemplateColumns: { xs: '44px 1fr 1fr', md: '40px 190px minmax(0, 1fr) 110px 130px 90px' },
          gridTemplateAreas: {
            xs: '"grip name name" ". rail rail" ". expected read" ". error edit"',
            md: '"grip name rail expected read error"',
          },
        }}
      >
        <IconButton
          ref={setActivatorNodeRef}
          {...attributes}
          {...listeners}
          aria-label={`Move ${item.name}`}
          sx={{ gridArea: 'grip', width: 44, height: 44, touchAction: 'none', cursor: 'grab' }}
        >
          <DragIndicatorOutlined />
        </IconButton>
        <Name item={item} isSuspect={isSuspect} isOpen={isOpen} onOpen={onOpen} />
        <Rail item={item} tap={tap} />
        <Typography component="div" variant="body2" sx={{ gridArea: 'expected', textAlign: { md: 'right' } }}>
          <Box component="span" sx={{ display: { md: 'none' }, color: 'text.secondary' }}>
            should stand at{' '}
          </Box>
          <Figure sx={{ fontSize: 16 }}>{tap?.expected ?? '–'}</Figure> {item.outUnit}
        </Typography>
        <Box
          sx={{
            gridArea: 'read',
            '& .MuiOutlinedInput-notchedOutline': isNext ? { borderColor: 'var(--now)', borderWidth: 2 } : {},
          }}
        >
          <NumberField label={`Read, ${item.outUnit}`} text={item.read} onText={onRead} error={readError} />
        </Box>
        <Typography
          component="div"
          variant="body2"
          sx={{
            gridArea: 'error',
            display: 'flex',
            gap: 0.5,
            alignItems: 'center',
            justifyContent: { md: 'flex-end' },
          }}
        >
          {tap?.read != null && (
            <>
              <VerdictMark verdict={tap.read.verdict} isMarkOnly />
              <Figure>{formatSigned(tap.read.errorPercent, 2)} %</Figure>
            </>
          )}
        </Typography>
      </Box>
      {isOpen && children}
    </Box>
  );
}

/** What it is called, what it is, and its tolerance; pressed, it opens. */
function Name({
  item,
  isSuspect,
  isOpen,
  onOpen,
}: Pick<RowProps, 'item' | 'isSuspect' | 'isOpen' | 'onOpen'>) {
  return (
    <Box
      sx={{
        gridArea: 'name',
        minWidth: 0,
        border: isSuspect ? '2px solid var(--outside)' : '2px solid transparent',
        px: 0.75,
      }}
    >
      <Button
        onClick={onOpen}
        aria-expanded={isOpen}
        sx={{
          p: 0,
          minWidth: 0,
          minHeight: 28,
          justifyContent: 'flex-start',
          fontWeight: 700,
          textAlign: 'left',
        }}
      >
        {item.name === '' ? 'no name' : item.name}
      </Button>
      <Typography variant="body2" sx={{ color: 'text.secondary', lineHeight: 1.2 }}>
        {item.kind}
        {item.transfer === 'linear' && item.drivenBy === 'pressure' ? '' : ', root here'}, ±{item.tolerance} %
      </Typography>
    </Box>
  );
}

/** The output of an item as a rail: its range, where the signal should stand, and where it was read. */
function Rail({ item, tap }: { item: ItemFields; tap: Tap | null }) {
  const at = (share: number) =>
    ({ position: 'absolute', left: across(share), transform: 'translateX(-50%)' }) as const;
  return (
    <Box
      role="img"
      aria-label={`${item.name}: ${item.outLow} to ${item.outHigh} ${item.outUnit}${tap === null ? '' : `, should stand at ${tap.expected}`}${tap?.read == null ? '' : `, read ${item.read}`}`}
      sx={{ gridArea: 'rail', position: 'relative', height: 44, minWidth: 0 }}
    >
      <Box
        sx={{
          position: 'absolute',
          top: 14,
          height: 7,
          left: across(0),
          right: `calc(100% - ${across(1)})`,
          bgcolor: 'var(--ink)',
        }}
      />
      {[0.25, 0.5, 0.75].map((share) => (
        <Box key={share} sx={{ ...at(share), top: 0, bottom: 0, width: '1px', bgcolor: 'var(--rule)' }} />
      ))}
      {tap !== null && (
        <Box sx={{ ...at(tap.share), top: -6, bottom: -6, width: '3px', bgcolor: 'var(--now)' }} />
      )}
      {tap?.read != null && (
        <Box
          sx={{
            ...at(tap.read.share),
            top: 9,
            width: 17,
            height: 17,
            borderRadius: '50%',
            border: `3px solid ${READ_INK[tap.read.verdict]}`,
            bgcolor: tap.read.verdict === 'within' ? 'var(--within)' : 'var(--sheet)',
          }}
        />
      )}
      {[
        [0, item.outLow],
        [1, item.outHigh],
      ].map(([share, text]) => (
        <Figure key={share} sx={{ ...at(Number(share)), top: 24, fontSize: 12.5 }}>
          {text}
        </Figure>
      ))}
    </Box>
  );
}
