'use client';
import { createTheme, type CSSObject } from '@mui/material/styles';
import { NIGHT, PAPER, type Palette } from './palette';

const WORDS = '"Atkinson Hyperlegible Next Variable", sans-serif';
export const FIGURES = '"Atkinson Hyperlegible Mono Variable", monospace';

/** Each colour as a CSS variable, so that drawings and charts follow the scheme. */
const variables = (palette: Palette): CSSObject =>
  Object.fromEntries(Object.entries(palette).map(([name, colour]) => [`--${name}`, colour]));

const muiPalette = (palette: Palette) => ({
  primary: { main: palette.ink, contrastText: palette.paper },
  secondary: { main: palette.now },
  info: { main: palette.muted },
  success: { main: palette.within },
  warning: { main: palette.adjust },
  error: { main: palette.outside },
  background: { default: palette.paper, paper: palette.sheet },
  text: { primary: palette.ink, secondary: palette.muted },
  divider: palette.rule,
});

/** A plain cell, as the library's own looks: that one costs a long list a third of its time. */
const CELL: CSSObject = {
  display: 'table-cell',
  padding: '5px clamp(3px, 1vw, 10px)',
  borderBottom: '1px solid var(--rule)',
  textAlign: 'left',
  verticalAlign: 'inherit',
  '&[data-side="right"]': { textAlign: 'right' },
};

/** Paper for the day, night for the control room. */
export const theme = createTheme({
  cssVariables: { colorSchemeSelector: 'data-scheme' },
  colorSchemes: { light: { palette: muiPalette(PAPER) }, dark: { palette: muiPalette(NIGHT) } },
  shape: { borderRadius: 3 },
  typography: {
    fontFamily: WORDS,
    fontSize: 15,
    button: { textTransform: 'none', fontWeight: 600 },
    h1: { fontSize: '1.6rem', fontWeight: 700, lineHeight: 1.2 },
    h2: { fontSize: '1.05rem', fontWeight: 700, lineHeight: 1.3 },
    h3: { fontSize: '0.95rem', fontWeight: 700, lineHeight: 1.3 },
  },
  components: {
    MuiCssBaseline: {
      styleOverrides: {
        ':root, [data-scheme="light"]': variables(PAPER),
        '[data-scheme="dark"]': variables(NIGHT),
        a: { color: 'inherit' },
        ':where(.figure)': { fontFamily: FIGURES, whiteSpace: 'nowrap' },
        // On a phone the row of places lies over the end of the page: what gets the focus is scrolled clear of it.
        '@media (max-width: 599.95px)': { html: { scrollPaddingBottom: 76 } },
        ':focus-visible': { outline: '3px solid var(--now)', outlineOffset: 2 },
        'input:focus-visible': { outlineOffset: -2 },
        '@media (prefers-reduced-motion: reduce)': {
          '*, *::before, *::after': { transition: 'none !important', animation: 'none !important' },
        },
      },
    },
    MuiPaper: {
      defaultProps: { elevation: 0, square: true },
      styleOverrides: { root: { backgroundImage: 'none' } },
    },
    MuiButton: {
      defaultProps: { disableElevation: true, disableRipple: true },
      styleOverrides: { root: { minHeight: 44 } },
    },
    MuiTable: {
      styleOverrides: {
        root: ({ theme: { typography } }) => ({
          '& > tbody > tr': { verticalAlign: 'middle' },
          '& > tbody > tr > :where(td:not([class]))': { ...typography.body2, ...CELL },
        }),
      },
    },
    MuiTableCell: {
      styleOverrides: { root: { padding: '5px clamp(3px, 1vw, 10px)', borderColor: 'var(--rule)' } },
    },
    MuiTextField: { defaultProps: { size: 'small' } },
    MuiAutocomplete: { styleOverrides: { paper: { border: '1px solid var(--rule)' } } },
  },
});
