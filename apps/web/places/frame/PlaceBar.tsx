'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { useState } from 'react';
import { barOf, isAt, PLACES } from './places';

/** The places on a wide screen: those of every day in a row, the rest behind one word. */
export function PlaceBar() {
  const path = usePathname();
  const { bar, more } = barOf(PLACES);
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const close = () => setAnchor(null);
  return (
    <Stack
      component="nav"
      aria-label="Places"
      direction="row"
      sx={{ gap: 0.5, display: { xs: 'none', sm: 'flex' } }}
    >
      {bar.map((place) => {
        const isHere = isAt(place, path);
        return (
          <Box
            key={place.name}
            component={Link}
            href={place.path}
            prefetch={false}
            aria-current={isHere ? 'page' : undefined}
            sx={{
              px: 1.25,
              height: 44,
              display: 'inline-flex',
              alignItems: 'center',
              textDecoration: 'none',
              fontWeight: isHere ? 700 : 400,
              boxShadow: isHere ? 'inset 0 -3px 0 var(--now)' : 'none',
            }}
          >
            {place.name}
          </Box>
        );
      })}
      {more.length > 0 && (
        <>
          <Button
            aria-haspopup="menu"
            onClick={(event) => setAnchor(event.currentTarget)}
            sx={{ color: 'inherit', fontWeight: more.some((place) => isAt(place, path)) ? 700 : 400 }}
          >
            More
          </Button>
          <Menu anchorEl={anchor} open={anchor !== null} onClose={close}>
            {more.map(({ name, path: to }) => (
              <MenuItem key={name} component={Link} href={to} onClick={close} sx={{ minHeight: 44 }}>
                {name}
              </MenuItem>
            ))}
          </Menu>
        </>
      )}
    </Stack>
  );
}
