import { createTheme } from '@mui/material/styles';

const font = "'Atkinson Hyperlegible Next Variable', system-ui, sans-serif";

/** Paper and ink with jade; flat, dense, no ripple, no upper case. */
export const theme = createTheme({
  cssVariables: { colorSchemeSelector: 'data-theme' },
  colorSchemes: {
    light: {
      palette: {
        primary: { main: '#1F7A5C' },
        secondary: { main: '#6B3F6B' },
        warning: { main: '#8A5608' },
        error: { main: '#A63D2F' },
        background: { default: '#F7F6F1', paper: '#FFFFFF' },
        text: { primary: '#1D2A26', secondary: '#54625C' },
        divider: '#D9DDD6',
      },
    },
    dark: {
      palette: {
        primary: { main: '#5CC7A0' },
        secondary: { main: '#C79BC7' },
        warning: { main: '#E0A84A' },
        error: { main: '#EE9486' },
        background: { default: '#121A17', paper: '#1A2420' },
        text: { primary: '#E6ECE8', secondary: '#A3B1AA' },
        divider: '#33403A',
      },
    },
  },
  shape: { borderRadius: 6 },
  typography: { fontFamily: font, fontSize: 14, body1: { fontSize: 14, lineHeight: 1.4 }, button: { textTransform: 'none', fontWeight: 600 } },
  components: {
    MuiButtonBase: { defaultProps: { disableRipple: true } },
    MuiButton: { defaultProps: { size: 'small', disableElevation: true } },
    MuiIconButton: { defaultProps: { size: 'small' } },
    MuiTooltip: { defaultProps: { enterDelay: 500, arrow: false } },
    MuiPaper: { defaultProps: { elevation: 0 }, styleOverrides: { root: { backgroundImage: 'none' } } },
    // What opens is there at once: nothing to wait for, and a busy page cannot leave one half open.
    MuiPopover: { defaultProps: { transitionDuration: 0 } },
    MuiMenu: { defaultProps: { transitionDuration: 0, slotProps: { paper: { variant: 'outlined' } } } },
    MuiMenuItem: { defaultProps: { dense: true } },
    MuiDialog: { defaultProps: { transitionDuration: 0, slotProps: { paper: { variant: 'outlined' } } } },
  },
});
