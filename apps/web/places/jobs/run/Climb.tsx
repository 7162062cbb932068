'use client';
/**
 * A run drawn as a staircase: a tread for each point, as high as its input, up and then down; the reading is typed on
 * the tread and its verdict stays there. On a phone the same stairs lie on their side, one row a point.
 */
import { atInstrument } from '@barys/core/corrections';
import type { JudgedReading } from '@barys/core/run';
import type { ExtraColumn, MadeWith } from '@barys/store/runs';
import Box from '@mui/material/Box';
import type { MouseEvent, ReactNode } from 'react';
import { Figure } from '@/ui/Figure';
import { pointPercent, pointWords, type Figures } from '@/ui/figures';
import { VerdictMark } from '@/ui/VerdictMark';
import type { Entry } from './types';

type Point = MadeWith['points'][number];

/** Height of a climb on a wide screen, px. */
const HEIGHT = 276;
/** Nine treads side by side leave 80 px each on a tablet. */
const SMALL = { xs: 14, sm: 12, md: 14 };
/** Share of the height that the lowest tread has, so that its words fit. */
const LOWEST = 0.245;
const HIGHEST = 0.72;

export interface ClimbPoint {
  readonly point: Point;
  readonly entry: Entry | undefined;
  readonly judged: JudgedReading | undefined;
  /** The reading of the run before, drawn pale. */
  readonly earlierText: string | undefined;
  readonly hasDraft: boolean;
  /** Approaches that went too far and do not count. */
  readonly overshotCount: number;
  /** Notes, and why nothing was read. */
  readonly words: readonly string[];
}

export const directionMark = (direction: Point['direction']): string => (direction === 'up' ? '▲' : '▼');

/** Share of the climb's height for an input; inputs beyond the range stay on the drawing. */
const rise = (percent: number): number =>
  LOWEST + (HIGHEST - LOWEST) * Math.min(1, Math.max(0, percent / 100));

export function Climb({
  points,
  head,
  current,
  figures,
  nameOf,
  field,
  onChoose,
}: {
  /** What the instrument sees more than the standard, in the input unit. */
  head: number;
  points: readonly ClimbPoint[];
  /** Position of the point that is now, or null when all are read. */
  current: number | null;
  figures: Figures;
  /** What is read beside the output, in short. */
  nameOf: (column: ExtraColumn) => string;
  /** The typing field of the point that is now. */
  field: ReactNode;
  onChoose: (position: number) => void;
}) {
  return (
    <Box
      component="ol"
      aria-label="Test points"
      sx={{
        listStyle: 'none',
        m: 0,
        p: 0,
        display: 'flex',
        flexDirection: { xs: 'column', sm: 'row' },
        alignItems: { sm: 'flex-end' },
        gap: { xs: 0.5, sm: '2px' },
        height: { sm: HEIGHT },
        borderBottom: { sm: '2px solid var(--ink)' },
      }}
    >
      {points.map((one) => (
        <Tread
          key={one.point.position}
          {...one}
          head={head}
          isCurrent={one.point.position === current}
          figures={figures}
          nameOf={nameOf}
          field={field}
          onChoose={onChoose}
        />
      ))}
    </Box>
  );
}

/** What stands above a tread; beside it on a phone. */
const ABOVE_TREAD = {
  order: { xs: 2, sm: 1 },
  textAlign: { xs: 'left', sm: 'center' },
  pb: { sm: 0.5 },
  display: { xs: 'flex', sm: 'block' },
  alignItems: 'center',
  // What is read at many taps goes on in the next line of a phone.
  flexWrap: 'wrap',
  columnGap: 1,
  flexShrink: { xs: 1, sm: 0 },
  minWidth: 0,
} as const;

function Tread({
  point,
  entry,
  judged,
  earlierText,
  hasDraft,
  overshotCount,
  words,
  isCurrent,
  head,
  figures,
  nameOf,
  field,
  onChoose,
}: ClimbPoint & {
  isCurrent: boolean;
  head: number;
  figures: Figures;
  nameOf: (column: ExtraColumn) => string;
  field: ReactNode;
  onChoose: (position: number) => void;
}) {
  const asked = figures.input(atInstrument(point.nominalApplied, -head));
  const wasReadElsewhere =
    entry !== undefined &&
    Number(entry.appliedText.replace(',', '.')) !== Number(asked.replace('\u2212', '-'));
  const applied = wasReadElsewhere ? entry.appliedText : asked;
  return (
    <Box
      component="li"
      aria-current={isCurrent ? 'step' : undefined}
      sx={{
        flex: { sm: '1 1 0' },
        minWidth: 0,
        display: 'flex',
        flexDirection: { xs: 'row', sm: 'column' },
        alignItems: { xs: 'center', sm: 'stretch' },
        justifyContent: { sm: 'flex-end' },
        gap: { xs: 1, sm: 0 },
        minHeight: { xs: 44, sm: 0 },
        height: { sm: '100%' },
      }}
    >
      <Box sx={ABOVE_TREAD}>
        {isCurrent ? (
          field
        ) : (
          <Reading entry={entry} judged={judged} figures={figures} nameOf={nameOf} hasDraft={hasDraft} />
        )}
      </Box>
      <Step
        percent={point.nominalPercent}
        isCurrent={isCurrent}
        isRead={entry !== undefined}
        label={`${isCurrent ? 'Now' : 'Go to'} ${pointWords(point)}, ${applied} ${figures.inputUnit}`}
        onChoose={() => onChoose(point.position)}
      >
        <TreadWords
          point={point}
          applied={`${applied} ${figures.inputUnit}`}
          isElsewhere={wasReadElsewhere}
          overshotCount={overshotCount}
          words={words}
          earlierText={earlierText}
        />
      </Step>
    </Box>
  );
}

/** The tread itself: as high as its point, and pressed to go there. */
function Step({
  percent,
  isCurrent,
  isRead,
  label,
  onChoose,
  children,
}: {
  percent: number;
  isCurrent: boolean;
  isRead: boolean;
  label: string;
  onChoose: () => void;
  children: ReactNode;
}) {
  return (
    <Box
      component="button"
      type="button"
      onClick={(event: MouseEvent<HTMLButtonElement>) => {
        onChoose();
        // A tap on the point that is now means its field.
        event.currentTarget.closest('li')?.querySelector('input')?.focus();
      }}
      aria-label={label}
      sx={{
        order: { xs: 1, sm: 2 },
        font: 'inherit',
        color: 'inherit',
        cursor: 'pointer',
        textAlign: 'left',
        px: { xs: 1, sm: 0.5, md: 1 },
        py: 0.5,
        minHeight: 44,
        width: { xs: `${40 + 18 * rise(percent)}%`, sm: '100%' },
        height: { sm: `${rise(percent) * 100}%` },
        display: 'flex',
        flexDirection: 'column',
        alignItems: 'flex-start',
        justifyContent: 'flex-start',
        lineHeight: 1.35,
        bgcolor: isCurrent ? 'var(--wash)' : isRead ? 'var(--sheet)' : 'transparent',
        border: isCurrent ? '2px solid var(--ink)' : '1px solid var(--rule)',
        borderBottom: { sm: 'none' },
      }}
    >
      {children}
    </Box>
  );
}

/** What stands on a tread: the point, what is applied there, and what happened on the way to it. */
function TreadWords({
  point,
  applied,
  isElsewhere,
  overshotCount,
  words,
  earlierText,
}: Pick<ClimbPoint, 'point' | 'overshotCount' | 'words' | 'earlierText'> & {
  applied: string;
  /** Whether it was read at another value than was asked for. */
  isElsewhere: boolean;
}) {
  return (
    <>
      <Box component="span" sx={{ fontSize: 14, whiteSpace: 'nowrap' }}>
        {directionMark(point.direction)} {pointPercent(point.nominalPercent)} %
      </Box>
      <Figure sx={{ fontSize: SMALL, fontWeight: isElsewhere ? 700 : 400 }}>{applied}</Figure>
      {overshotCount > 0 && (
        <Box component="span" sx={{ fontSize: SMALL }}>
          overshot {overshotCount > 1 ? `${overshotCount} times` : 'once'}
        </Box>
      )}
      {words.map((word) => (
        <Box component="span" key={word} sx={{ fontSize: SMALL, lineHeight: 1.15 }}>
          {word}
        </Box>
      ))}
      {earlierText !== undefined && (
        <Figure sx={{ fontSize: { xs: 13, sm: 11.5, md: 13 }, color: 'text.secondary', mt: { sm: 0.5 } }}>
          found {earlierText}
        </Figure>
      )}
    </>
  );
}

function Reading({
  entry,
  judged,
  figures,
  nameOf,
  hasDraft,
}: Pick<ClimbPoint, 'entry' | 'judged' | 'hasDraft'> & {
  figures: Figures;
  nameOf: (column: ExtraColumn) => string;
}) {
  if (entry === undefined)
    return hasDraft ? <Box sx={{ fontSize: 13, color: 'text.secondary' }}>typed, not entered</Box> : null;
  return (
    <>
      <Figure
        sx={{
          display: 'block',
          fontSize: { xs: 20, sm: 20, md: 24 },
          fontWeight: 700,
          opacity: entry.isSaved ? 1 : 0.55,
        }}
      >
        {entry.outputText}
      </Figure>
      {Object.entries(entry.more).map(([column, text]) => (
        <Figure key={column} sx={{ display: 'block', fontSize: 12.5, color: 'text.secondary' }}>
          {nameOf(column as ExtraColumn)} {text}
        </Figure>
      ))}
      <Box
        sx={{
          display: 'flex',
          alignItems: 'center',
          justifyContent: 'center',
          gap: { xs: 0.75, sm: 0.25, md: 0.75 },
          fontSize: SMALL,
        }}
      >
        {!entry.isSaved && <span>not saved yet</span>}
        {judged !== undefined && entry.isSaved && (
          <>
            <VerdictMark verdict={judged.verdict} isMarkOnly />
            <Figure>{figures.error(judged)} %</Figure>
          </>
        )}
      </Box>
    </>
  );
}
