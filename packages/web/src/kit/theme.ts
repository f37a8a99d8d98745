import { createTheme } from '@mui/material/styles';
import { faces } from './looks.ts';

/** What the interface is drawn in, by its names in style sheets (`--paper` and so on). */
const colours = {
  light: {
    paper: '#F7F6F1',
    panel: '#FFFFFF',
    ink: '#1D2A26',
    faint: '#54625C',
    line: '#D9DDD6',
    jade: '#1F7A5C',
    wash: '#DDEFE6',
    plum: '#6B3F6B',
    'plum-wash': '#F0E6F0',
    amber: '#8A5608',
    brick: '#A63D2F',
    stage: '#EFEDE6',
  },
  dark: {
    paper: '#121A17',
    panel: '#1A2420',
    ink: '#E6ECE8',
    faint: '#A3B1AA',
    line: '#33403A',
    jade: '#5CC7A0',
    wash: '#1F3A30',
    plum: '#C79BC7',
    'plum-wash': '#35263A',
    amber: '#E0A84A',
    brick: '#EE9486',
    stage: '#18211D',
  },
};
type Colours = (typeof colours)['light'];

const palette = (c: Colours) => ({
  primary: { main: c.jade },
  secondary: { main: c.plum },
  info: { main: c.jade },
  warning: { main: c.amber },
  error: { main: c.brick },
  background: { default: c.paper, paper: c.panel },
  text: { primary: c.ink, secondary: c.faint },
  divider: c.line,
});
const variables = (c: Colours) => Object.fromEntries(Object.entries(c).map(([name, value]) => [`--${name}`, value]));

const font = "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif";
const focus = { outline: '2px solid var(--jade)', outlineOffset: 1 };

/** Paper and ink with jade; flat, dense, no ripple, no upper case. */
export const theme = createTheme({
  cssVariables: { colorSchemeSelector: 'data-theme' },
  colorSchemes: { light: { palette: palette(colours.light) }, dark: { palette: palette(colours.dark) } },
  shape: { borderRadius: 6 },
  typography: { fontFamily: font, fontSize: 14, body1: { fontSize: 14, lineHeight: 1.4 }, button: { textTransform: 'none', fontWeight: 600 } },
  components: {
    MuiCssBaseline: {
      styleOverrides: {
        ':root': { ...variables(colours.light), '--mono': "'Atkinson Hyperlegible Mono Variable', ui-monospace, monospace" },
        "[data-theme='dark']": variables(colours.dark),
        ...faces,
      },
    },
    MuiButtonBase: { defaultProps: { disableRipple: true }, styleOverrides: { root: { '&:focus-visible': focus } } },
    MuiButton: { defaultProps: { size: 'small', disableElevation: true } },
    MuiIconButton: { defaultProps: { size: 'small' } },
    MuiToggleButton: {
      styleOverrides: {
        root: {
          padding: '1px 12px',
          minHeight: 24,
          fontSize: 13,
          fontWeight: 400,
          lineHeight: 1.4,
          color: 'var(--ink)',
          background: 'var(--panel)',
          borderColor: 'var(--line)',
          '&.Mui-selected': { fontWeight: 650, color: 'var(--ink)', background: 'var(--wash)' },
          '&.Mui-selected:hover': { background: 'var(--wash)' },
        },
      },
    },
    MuiTabs: {
      styleOverrides: { root: { minHeight: 0 }, indicator: { display: 'none' }, list: { gap: 2 } },
    },
    MuiTab: {
      styleOverrides: {
        root: {
          minHeight: 26,
          minWidth: 0,
          maxWidth: 260,
          padding: '2px 10px',
          fontSize: 13,
          fontWeight: 400,
          textTransform: 'none',
          color: 'var(--faint)',
          border: '1px solid transparent',
          borderRadius: 6,
          '&.Mui-selected': { color: 'var(--ink)', fontWeight: 600, background: 'var(--panel)', borderColor: 'var(--line)' },
        },
      },
    },
    MuiTooltip: { defaultProps: { enterDelay: 500, arrow: false } },
    MuiPaper: { defaultProps: { elevation: 0 }, styleOverrides: { root: { backgroundImage: 'none' } } },
    // What opens is there at once: nothing to wait for, and a busy page cannot leave one half open.
    MuiPopover: { defaultProps: { transitionDuration: 0 } },
    MuiMenu: { defaultProps: { transitionDuration: 0, slotProps: { paper: { variant: 'outlined' } } } },
    MuiMenuItem: { defaultProps: { dense: true }, styleOverrides: { root: { minHeight: 28, paddingBlock: 2, fontSize: 13 } } },
    MuiAutocomplete: {
      styleOverrides: { option: { minHeight: 28, fontSize: 13, '&.Mui-focused.Mui-focused': { background: 'var(--wash)' } } },
    },
    MuiListSubheader: { styleOverrides: { root: { lineHeight: '28px', fontSize: 12, color: 'var(--faint)' } } },
    MuiListItemButton: {
      styleOverrides: {
        root: {
          width: '100%',
          padding: '2px 8px',
          minHeight: 24,
          fontSize: 13,
          lineHeight: 1.4,
          border: 0,
          borderRadius: 6,
          color: 'inherit',
          fontFamily: 'inherit',
          '&.Mui-selected, &.Mui-selected:hover': { background: 'var(--wash)', fontWeight: 600 },
        },
      },
    },
    MuiDialog: { defaultProps: { transitionDuration: 0, slotProps: { paper: { variant: 'outlined' } } } },
    MuiDialogTitle: { styleOverrides: { root: { fontSize: 17 } } },
  },
});
