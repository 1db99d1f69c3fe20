import '@fontsource-variable/literata/index.css';
import '@fontsource-variable/public-sans/index.css';

import { createTheme } from '@mui/material/styles';

import type { StatusKind } from '../shared/api';

declare module '@mui/material/styles' {
  interface Palette {
    mark: Record<StatusKind['mark'], string>;
    wire: string;
    verdigris: string;
    amber: string;
  }
  interface PaletteOptions {
    mark: Record<StatusKind['mark'], string>;
    wire: string;
    verdigris: string;
    amber: string;
  }
}

const SERIF = '"Literata Variable", Georgia, serif';
const SANS = '"Public Sans Variable", system-ui, sans-serif';

// Warm paper and damson ink; verdigris for what is open and for doing, amber for what wants a look.
const light = {
  mode: 'light' as const,
  primary: { main: '#4f2143', contrastText: '#fdf8ee' },
  secondary: { main: '#24625b', contrastText: '#fdf8ee' },
  error: { main: '#9a3412' },
  warning: { main: '#8a5208' },
  info: { main: '#24625b' },
  background: { default: '#f5eee0', paper: '#fdf9f0' },
  text: { primary: '#2c1826', secondary: '#66525f', disabled: '#9b8b94' },
  divider: '#ddd0bb',
  mark: {
    bud: '#1d5f57',
    stone: '#1d5f57',
    stake: '#6d5a66',
    'price-tag': '#4f2143',
    falling: '#8a5208',
    fence: '#6d5a66',
    gate: '#6d5a66',
    leaf: '#8a5208',
    beads: '#66525f',
    dash: '#77666f',
  },
  wire: '#b9a58c',
  verdigris: '#24625b',
  amber: '#8a5208',
};
const dark: typeof light | Record<string, unknown> = {
  mode: 'dark' as const,
  primary: { main: '#dcb3cf', contrastText: '#2a1424' },
  secondary: { main: '#7cc5b8', contrastText: '#10211f' },
  error: { main: '#f0a184' },
  warning: { main: '#e3ab58' },
  info: { main: '#7cc5b8' },
  background: { default: '#1b141a', paper: '#251b23' },
  text: { primary: '#f1e7d8', secondary: '#bfaab7', disabled: '#8a7783' },
  divider: '#42333e',
  mark: {
    bud: '#86d3c4',
    stone: '#86d3c4',
    stake: '#b09aa8',
    'price-tag': '#dcb3cf',
    falling: '#e3ab58',
    fence: '#b09aa8',
    gate: '#b09aa8',
    leaf: '#e3ab58',
    beads: '#bfaab7',
    dash: '#a08d99',
  },
  wire: '#75614f',
  verdigris: '#7cc5b8',
  amber: '#e3ab58',
};

export const theme = createTheme({
  cssVariables: { colorSchemeSelector: 'data-mode' },
  colorSchemes: { light: { palette: light }, dark: { palette: dark as typeof light } },
  shape: { borderRadius: 5 },
  typography: {
    fontFamily: SANS,
    fontSize: 13,
    h1: { fontFamily: SERIF, fontSize: '1.9rem', fontWeight: 500, letterSpacing: '-0.01em' },
    h2: { fontFamily: SERIF, fontSize: '1.25rem', fontWeight: 550 },
    h3: { fontFamily: SERIF, fontSize: '1.08rem', fontWeight: 600 },
    overline: {
      fontSize: '0.7rem',
      fontWeight: 650,
      letterSpacing: '0.06em',
      lineHeight: 1.6,
      textTransform: 'none',
    },
    button: { textTransform: 'none', fontWeight: 600 },
  },
  components: {
    MuiCssBaseline: {
      styleOverrides: {
        html: { height: '100%' },
        body: { height: '100%', fontVariantNumeric: 'tabular-nums lining-nums' },
        '#root': { height: '100%' },
        '.serif, .MuiTypography-root.serif': { fontFamily: SERIF },
        '@media print': { 'html, body, #root': { height: 'auto' } },
        kbd: { fontFamily: SANS },
        '.MuiButton-root kbd': {
          marginLeft: 8,
          border: '1px solid currentColor',
          borderRadius: 3,
          padding: '0 4px',
          fontSize: '0.78em',
          fontWeight: 450,
          lineHeight: 1.4,
        },
        '*:focus-visible': { outline: '2px solid var(--mui-palette-secondary-main)', outlineOffset: 1 },
        '@media (prefers-reduced-motion: reduce)': {
          '*': { transition: 'none !important', animation: 'none !important' },
        },
      },
    },
    MuiButtonBase: { defaultProps: { disableRipple: true } },
    MuiButton: { defaultProps: { disableElevation: true, size: 'small' } },
    MuiInputLabel: { styleOverrides: { shrink: { maxWidth: '133%', overflow: 'visible' } } },
    MuiTextField: { defaultProps: { size: 'small' } },
    MuiSelect: { defaultProps: { size: 'small' } },
    MuiTooltip: { defaultProps: { enterDelay: 500, arrow: true } },
    MuiToggleButton: {
      styleOverrides: {
        root: {
          color: 'var(--mui-palette-text-secondary)',
          '&.Mui-selected': { color: 'var(--mui-palette-primary-main)' },
        },
      },
    },
    MuiPaper: { styleOverrides: { root: { backgroundImage: 'none' } } },
    MuiOutlinedInput: {
      styleOverrides: { root: { backgroundColor: 'var(--mui-palette-background-paper)' } },
    },
  },
});
