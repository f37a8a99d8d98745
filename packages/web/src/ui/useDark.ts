import { useColorScheme } from '@mui/material/styles';

/** Whether the dark scheme is shown. */
export function useDark(): boolean {
  const { mode, systemMode } = useColorScheme();
  return (mode === 'system' ? systemMode : mode) === 'dark';
}
