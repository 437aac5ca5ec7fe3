'use client';
/** MUI in our clothes: flat, square, dense, colours from the tokens. */
import { createTheme } from '@mui/material/styles';
import { swallowStillRelease } from './still-pointer';

/** The tokens are the one place of every colour: they change with the scheme by themselves. */
const palette = {
  primary: { main: 'var(--accent)', contrastText: 'var(--paper)' },
  error: { main: 'var(--alarm)', contrastText: 'var(--paper)' },
  background: { default: 'var(--paper)', paper: 'var(--sheet)' },
  text: { primary: 'var(--ink)', secondary: 'var(--ink-2)' },
  divider: 'var(--rule)',
};

export const theme = createTheme({
  cssVariables: { colorSchemeSelector: 'data', nativeColor: true },
  colorSchemes: { light: { palette }, dark: { palette } },
  shape: { borderRadius: 3 },
  typography: {
    fontFamily: 'var(--text)',
    fontSize: 13,
    htmlFontSize: 16,
    button: { textTransform: 'none', fontWeight: 500 },
  },
  components: {
    MuiButtonBase: { defaultProps: { disableRipple: true } },
    MuiButton: {
      defaultProps: { size: 'small', variant: 'outlined', disableElevation: true },
      styleOverrides: {
        root: {
          minHeight: 28,
          padding: '2px 10px',
          fontSize: 'var(--font-base)',
          lineHeight: 1.5,
          borderColor: 'var(--ink-3)',
          color: 'var(--ink)',
        },
        contained: {
          backgroundColor: 'var(--ink)',
          color: 'var(--paper)',
          '&:hover': { backgroundColor: 'var(--accent)' },
        },
        text: { border: 0, color: 'var(--accent)' },
      },
    },
    MuiPaper: {
      styleOverrides: {
        root: { backgroundImage: 'none', border: '1px solid var(--rule)', boxShadow: '0 6px 24px #0003' },
      },
    },
    MuiMenu: { defaultProps: { slotProps: { paper: { onMouseUpCapture: swallowStillRelease } } } },
    MuiMenuItem: {
      styleOverrides: { root: { fontSize: 'var(--font-base)', minHeight: 28, paddingTop: 3, paddingBottom: 3 } },
    },
    MuiOutlinedInput: {
      styleOverrides: {
        root: { fontSize: 'var(--font-base)' },
        input: { padding: '4px 8px', height: 20 },
        notchedOutline: { borderColor: 'var(--ink-3)' },
      },
    },
    MuiSelect: { styleOverrides: { select: { paddingTop: 4, paddingBottom: 4, minHeight: 20, lineHeight: '20px' } } },
    MuiFormHelperText: { styleOverrides: { root: { marginLeft: 0, fontSize: 'var(--font-small)', lineHeight: 1.35 } } },
    MuiInputLabel: { styleOverrides: { root: { fontSize: 'var(--font-base)' } } },
    MuiTooltip: {
      defaultProps: { enterDelay: 500 },
      styleOverrides: {
        tooltip: { backgroundColor: 'var(--ink)', color: 'var(--paper)', fontSize: 'var(--font-small)' },
      },
    },
    MuiDialogTitle: {
      styleOverrides: {
        root: { fontFamily: 'var(--heading)', fontWeight: 600, fontSize: 'var(--font-head)', padding: '14px 18px 6px' },
      },
    },
    MuiDialogContent: { styleOverrides: { root: { padding: '6px 18px 12px' } } },
    MuiDialogActions: { styleOverrides: { root: { padding: '8px 18px 14px' } } },
    MuiListSubheader: { styleOverrides: { root: { fontSize: 'var(--font-small)', lineHeight: '26px' } } },
    MuiAutocomplete: {
      styleOverrides: {
        inputRoot: { padding: '0 28px 0 0 !important' },
        input: { padding: '4px 8px !important' },
        groupLabel: { fontSize: 'var(--font-small)', lineHeight: '26px' },
        option: { fontSize: 'var(--font-base)', '&&': { minHeight: 26 } },
      },
    },
  },
});
