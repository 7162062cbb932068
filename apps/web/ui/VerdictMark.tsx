import type { Verdict } from '@barys/core/run';
import Box from '@mui/material/Box';
import { SHORT_VERDICT_WORD, VERDICT_COLOUR, VERDICT_SHAPES, VERDICT_WORD } from './verdict';

/**
 * The mark of a verdict with its word. `isMarkOnly` leaves the word to screen readers, for places where the word
 * stands close by.
 */
export function VerdictMark({
  verdict,
  size = 14,
  isMarkOnly = false,
  isShort = false,
}: {
  verdict: Verdict;
  size?: number;
  isMarkOnly?: boolean;
  /** In a table, where the whole word stands elsewhere. */
  isShort?: boolean;
}) {
  const colour = `var(--${VERDICT_COLOUR[verdict]})`;
  return (
    <Box
      component="span"
      sx={{
        display: 'inline-flex',
        alignItems: 'center',
        gap: 0.75,
        whiteSpace: { xs: 'normal', sm: 'nowrap' },
        // The shape says it where colours do not, and keeps its size beside two lines.
        '& svg': { flexShrink: 0 },
      }}
    >
      <svg
        width={size}
        height={size}
        viewBox="0 0 20 20"
        {...(isMarkOnly ? { role: 'img', 'aria-label': VERDICT_WORD[verdict] } : { 'aria-hidden': true })}
      >
        {VERDICT_SHAPES[verdict].map(({ path, isFilled }) => (
          <path key={path} d={path} stroke={colour} strokeWidth={2} fill={isFilled ? colour : 'none'} />
        ))}
      </svg>
      {!isMarkOnly && (
        <Box component="span" sx={{ color: colour, fontWeight: 600 }}>
          {(isShort ? SHORT_VERDICT_WORD : VERDICT_WORD)[verdict]}
        </Box>
      )}
    </Box>
  );
}
