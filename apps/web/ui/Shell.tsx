'use client';
import DarkModeOutlined from '@mui/icons-material/DarkModeOutlined';
import LightModeOutlined from '@mui/icons-material/LightModeOutlined';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import Stack from '@mui/material/Stack';
import { useColorScheme } from '@mui/material/styles';
import Typography from '@mui/material/Typography';
import type { Person } from '@barys/store';
import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { useTransition, type ReactNode } from 'react';
import { useIsMounted } from './useIsMounted';

const PLACES = [
  { name: 'Today', path: '/' },
  { name: 'Jobs', path: '/jobs' },
  { name: 'Instruments', path: '/instruments' },
  { name: 'Workshop', path: '/workshop' },
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

function PersonChoice({
  people,
  acting,
  choose,
}: {
  people: readonly Person[];
  acting: Person | null;
  choose: (id: number) => Promise<void>;
}) {
  const [isPending, startTransition] = useTransition();
  return (
    <Select
      value={acting?.id ?? ''}
      displayEmpty
      size="small"
      variant="outlined"
      disabled={isPending}
      onChange={(event) => startTransition(() => choose(event.target.value))}
      inputProps={{ 'aria-label': 'Who is working' }}
      renderValue={(id) => people.find((person) => person.id === id)?.name ?? 'Who is working?'}
      sx={{
        minWidth: 150,
        height: 40,
        bgcolor: acting === null ? 'var(--wash)' : 'transparent',
        fontWeight: 600,
      }}
    >
      {people.map((person) => (
        <MenuItem key={person.id} value={person.id} sx={{ minHeight: 44 }}>
          {person.name}
        </MenuItem>
      ))}
    </Select>
  );
}

/** The frame of every page: places, site, who is working. */
export function Shell({
  siteName,
  isDemo,
  people,
  acting,
  choose,
  children,
}: {
  siteName: string;
  isDemo: boolean;
  people: readonly Person[];
  acting: Person | null;
  choose: (id: number) => Promise<void>;
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
        <Stack component="nav" aria-label="Places" direction="row" sx={{ gap: 0.5 }}>
          {PLACES.map(({ name, path: place }) => (
            <Box
              key={name}
              component={Link}
              href={place}
              prefetch={false}
              aria-current={isAt(place) ? 'page' : undefined}
              sx={{
                px: 1.25,
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
          <PersonChoice people={people} acting={acting} choose={choose} />
          <SchemeSwitch />
        </Stack>
      </Box>
      <Box component="main" sx={{ px: { xs: 1.5, sm: 3 }, py: 1.5, maxWidth: 1440, mx: 'auto' }}>
        {children}
      </Box>
    </>
  );
}
