'use client';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import Drawer from '@mui/material/Drawer';
import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { useState } from 'react';
import { isAt, PLACES } from './places';

/** Height of the row, which pages leave free at their end. */
export const ROW_PX = 52;

const cell = (isHere: boolean) => ({
  // As wide as its word asks: the words of five places fill the row.
  flex: '1 1 auto',
  height: ROW_PX,
  display: 'flex',
  alignItems: 'center',
  justifyContent: 'center',
  fontSize: 13,
  color: 'inherit',
  textDecoration: 'none',
  fontWeight: isHere ? 700 : 400,
  boxShadow: isHere ? 'inset 0 3px 0 var(--now)' : 'none',
});

/** The places on a phone: one row within reach of the thumb, and a sheet with all of them. */
export function PlaceRow() {
  const path = usePathname();
  const [isOpen, setOpen] = useState(false);
  const everyday = PLACES.filter(({ isEveryday }) => isEveryday);
  return (
    <Box
      component="nav"
      aria-label="Places"
      sx={{
        display: { xs: 'flex', sm: 'none' },
        position: 'fixed',
        left: 0,
        right: 0,
        bottom: 0,
        zIndex: 'appBar',
        pb: 'env(safe-area-inset-bottom)',
        bgcolor: 'background.default',
        borderTop: '1px solid var(--rule)',
        '@media print': { display: 'none' },
      }}
    >
      {everyday.map((place) => (
        <Box
          key={place.name}
          component={Link}
          href={place.path}
          prefetch={false}
          aria-current={isAt(place, path) ? 'page' : undefined}
          sx={cell(isAt(place, path))}
        >
          {place.name}
        </Box>
      ))}
      <ButtonBase
        onClick={() => setOpen(true)}
        aria-haspopup="dialog"
        sx={{ '&.MuiButtonBase-root': cell(!everyday.some((place) => isAt(place, path))) }}
      >
        All
      </ButtonBase>
      <Drawer
        anchor="bottom"
        open={isOpen}
        onClose={() => setOpen(false)}
        slotProps={{ paper: { 'aria-label': 'All places', role: 'dialog' } }}
      >
        {PLACES.map((place) => (
          <Box
            key={place.name}
            component={Link}
            href={place.path}
            prefetch={false}
            onClick={() => setOpen(false)}
            aria-current={isAt(place, path) ? 'page' : undefined}
            sx={{
              ...cell(false),
              flex: 'none',
              justifyContent: 'flex-start',
              px: 2.5,
              fontSize: 17,
              fontWeight: isAt(place, path) ? 700 : 400,
              borderBottom: '1px solid var(--rule)',
            }}
          >
            {place.name}
          </Box>
        ))}
      </Drawer>
    </Box>
  );
}
