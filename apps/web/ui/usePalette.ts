import { useColorScheme } from '@mui/material/styles';
import { NIGHT, PAPER, type Palette } from './palette';

/** The colours of the scheme in use, for drawings that cannot follow CSS variables. */
export function usePalette(): { palette: Palette; isNight: boolean } {
  const { mode, systemMode } = useColorScheme();
  const isNight = (mode === 'system' ? systemMode : mode) === 'dark';
  return { palette: isNight ? NIGHT : PAPER, isNight };
}
