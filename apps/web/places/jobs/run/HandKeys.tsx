'use client';
/** The keys of a run as buttons, for a hand that has no keyboard. */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';

/** What a hand can do with the field of the point that is now. */
export interface Hand {
  readonly enter: () => void;
  readonly openApplied: () => void;
  /** Puts a minus before what is typed, or takes it away: keypads with decimals often have none. */
  readonly turnSign: () => void;
  /** Makes of what is typed a deviation at a null meter, or the output itself again. */
  readonly turnNull: () => void;
}

export function HandKeys({
  hand,
  onLetter,
}: {
  hand: { readonly current: Hand | null };
  onLetter: (letter: string) => boolean;
}) {
  const keys: readonly (readonly [string, string, () => void])[] = [
    ['Enter', 'Enter the reading', () => hand.current?.enter()],
    ['±', 'Turn the sign', () => hand.current?.turnSign()],
    ['Null', 'A deviation at a null meter, from 0 % or 100 %', () => hand.current?.turnNull()],
    ['Applied', 'Type the applied value', () => hand.current?.openApplied()],
    ['Overshot', 'Overshot: come again from the right side', () => void onLetter('o')],
    ['Leave out', 'Leave out: no reading at this point', () => void onLetter('x')],
    ['Note', 'Note at this point', () => void onLetter('n')],
  ];
  return (
    <Box
      role="toolbar"
      aria-label="Keys of the run"
      sx={{ display: { xs: 'flex', md: 'none' }, flexWrap: 'wrap', gap: 0.5, mt: 1 }}
    >
      {keys.map(([word, label, act]) => (
        <Button
          key={word}
          variant={word === 'Enter' ? 'contained' : 'outlined'}
          aria-label={label}
          // The field keeps the focus, and with it the keypad.
          onPointerDown={(event) => event.preventDefault()}
          onMouseDown={(event) => event.preventDefault()}
          onClick={act}
          sx={{ minWidth: 44, minHeight: 44, px: 1 }}
        >
          {word}
        </Button>
      ))}
    </Box>
  );
}
