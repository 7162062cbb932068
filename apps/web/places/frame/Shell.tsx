'use client';
import DarkModeOutlined from '@mui/icons-material/DarkModeOutlined';
import LightModeOutlined from '@mui/icons-material/LightModeOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import { useColorScheme } from '@mui/material/styles';
import Typography from '@mui/material/Typography';
import type { Person } from '@barys/store/people';
import Link from 'next/link';
import { useState, type ReactNode } from 'react';
import { signOutAction } from '@/places/account/actions';
import { useIsMounted } from '@/ui/useIsMounted';
import { PlaceBar } from './PlaceBar';
import { PlaceRow, ROW_PX } from './PlaceRow';

function SchemeSwitch() {
  const { mode, systemMode, setMode } = useColorScheme();
  const isMounted = useIsMounted();
  const isNight = isMounted && (mode === 'system' ? systemMode : mode) === 'dark';
  return (
    <IconButton
      aria-label={isNight ? 'Switch to paper (day)' : 'Switch to night'}
      onClick={() => setMode(isNight ? 'light' : 'dark')}
      sx={{ color: 'inherit', width: 44, height: 44 }}
    >
      {isNight ? <LightModeOutlined fontSize="small" /> : <DarkModeOutlined fontSize="small" />}
    </IconButton>
  );
}

function PersonMenu({ acting }: { acting: Person }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const close = () => setAnchor(null);
  return (
    <>
      <Button
        onClick={(event) => setAnchor(event.currentTarget)}
        aria-haspopup="menu"
        sx={{ color: 'inherit' }}
      >
        {acting.name}
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={close}>
        <MenuItem component={Link} href="/account" onClick={close} sx={{ minHeight: 44 }}>
          Password and tokens
        </MenuItem>
        <MenuItem component={Link} href="/sign-in" onClick={close} sx={{ minHeight: 44 }}>
          Sign in as somebody else
        </MenuItem>
        <form action={signOutAction}>
          <MenuItem component="button" type="submit" sx={{ minHeight: 44, width: '100%' }}>
            Sign out
          </MenuItem>
        </form>
      </Menu>
    </>
  );
}

/** The frame of every page: places, site, who is working. */
export function Shell({
  siteName,
  isDemo,
  acting,
  children,
}: {
  siteName: string;
  isDemo: boolean;
  acting: Person | null;
  children: ReactNode;
}) {
  return (
    <>
      <Box
        component="header"
        sx={{
          display: 'flex',
          flexWrap: 'wrap',
          alignItems: 'center',
          columnGap: 3,
          px: { xs: 1.5, sm: 3 },
          py: 0.25,
          borderBottom: '1px solid var(--rule)',
          '@media print': { display: 'none' },
        }}
      >
        <Typography component="span" sx={{ fontWeight: 800, fontSize: '1.15rem', letterSpacing: '0.01em' }}>
          Barys
        </Typography>
        {acting !== null && <PlaceBar />}
        <Typography
          variant="body2"
          sx={{ color: 'text.secondary', ml: 'auto', display: { xs: 'none', md: 'block' } }}
        >
          {siteName}
          {isDemo ? ' · demo, every name and figure is invented' : ''}
        </Typography>
        <Stack direction="row" sx={{ alignItems: 'center', ml: { xs: 'auto', md: 0 } }}>
          {acting !== null && <PersonMenu acting={acting} />}
          <SchemeSwitch />
        </Stack>
      </Box>
      <Box
        component="main"
        sx={{
          px: { xs: 1.5, sm: 3 },
          pt: 1.5,
          // The row of places on a phone covers nothing of a page.
          pb: { xs: acting === null ? 1.5 : `${ROW_PX + 16}px`, sm: 1.5 },
          maxWidth: 1440,
          mx: 'auto',
        }}
      >
        {children}
      </Box>
      {acting !== null && <PlaceRow />}
    </>
  );
}
