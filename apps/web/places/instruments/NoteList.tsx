import type { InstrumentNote } from '@barys/store/registers';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import Link from 'next/link';
import { showMoment } from '@/server/dates';

/** Notes that the workshop left, each with the way back to where it was worked out. */
export function NoteList({ notes }: { notes: readonly InstrumentNote[] }) {
  return (
    <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
      {notes.map(({ id, text, address, madeBy, madeAt }) => (
        <li key={id}>
          {text}{' '}
          <Typography component="span" variant="body2" sx={{ color: 'text.secondary' }}>
            {madeBy}, {showMoment(madeAt)}
            {address !== '' && (
              <>
                {' · '}
                <Link prefetch={false} href={address}>
                  worked out
                </Link>
              </>
            )}
          </Typography>
        </li>
      ))}
    </Box>
  );
}
