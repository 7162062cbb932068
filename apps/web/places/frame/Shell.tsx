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
import { usePathname } from 'next/navigation';
import { useState, type ReactNode } from 'react';
import { signOutAction } from '@/places/account/actions';
import { useIsMounted } from '@/ui/useIsMounted';

const PLACES = [
  { name: 'Today', path: '/' },
  { name: 'Jobs', path: '/jobs' },
  { name: 'Instruments', path: '/instruments' },
  { name: 'References', path: '/references' },
  { name: 'Workshop', path: '/workshop' },
  { name: 'Office', path: '/office' },
];

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
  const path = usePathname();
  const isAt = (place: string) => (place === '/' ? path === '/' : path.startsWith(place));
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
        <Stack
          component="nav"
          aria-label="Places"
          direction="row"
          sx={{
            gap: { xs: 0, sm: 0.5 },
            flexWrap: 'wrap',
            order: { xs: 3, sm: 0 },
            width: { xs: '100%', sm: 'auto' },
          }}
        >
          {(acting === null ? [] : PLACES).map(({ name, path: place }) => (
            <Box
              key={name}
              component={Link}
              href={place}
              prefetch={false}
              aria-current={isAt(place) ? 'page' : undefined}
              sx={{
                px: { xs: 0.9, sm: 1.25 },
                height: 44,
                display: 'inline-flex',
                alignItems: 'center',
                textDecoration: 'none',
                fontWeight: isAt(place) ? 700 : 400,
                boxShadow: isAt(place) ? 'inset 0 -3px 0 var(--now)' : 'none',
              }}
            >
              {name}
            </Box>
          ))}
        </Stack>
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
      <Box component="main" sx={{ px: { xs: 1.5, sm: 3 }, py: 1.5, maxWidth: 1440, mx: 'auto' }}>
        {children}
      </Box>
    </>
  );
}
