'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { Facts } from '@/ui/Facts';

const KEYS = [
  ['Digits, Enter', 'enter the reading and go to the next point'],
  [
    'A',
    'type the applied value, where the reference does not show the nominal one; Esc goes back to nominal',
  ],
  [
    '0.02 null',
    'at 0 % and 100 %: what a null meter shows that stands at nothing there, in the unit of the output; 0.1 % null in per cent of span',
  ],
  ['T', 'the pressure stands: wait as long as the damping asks'],
  ['O', 'overshot: the approach is kept as a mark and not judged; come again from the right side'],
  ['X', 'no reading at this point, with the reason'],
  ['N', 'a note at this point'],
  ['↑  ↓', 'the point before, the next point; a new reading there corrects the old one, which is kept'],
  ['Paste', 'a column of readings, or two columns: applied, reading'],
  [', or .', 'both are read as the decimal sign'],
  ['?', 'this sheet'],
] as const;

export function KeysSheet({ isOpen, onClose }: { isOpen: boolean; onClose: () => void }) {
  return (
    <Dialog open={isOpen} onClose={onClose} aria-labelledby="keys-title">
      <DialogTitle id="keys-title">Keys of a run</DialogTitle>
      <DialogContent>
        <Facts facts={KEYS} />
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose} autoFocus>
          Close
        </Button>
      </DialogActions>
    </Dialog>
  );
}
