import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource-variable/atkinson-hyperlegible-mono';
import './ui/look.css';
import { CssBaseline, StyledEngineProvider, ThemeProvider } from '@mui/material';
import { lazy, StrictMode, Suspense } from 'react';
import { createRoot } from 'react-dom/client';
import { BrowserRouter, Navigate, Route, Routes } from 'react-router';
import { Shelf } from './shelf/Shelf.tsx';
import { SWRConfig } from 'swr';
import { CacheAtHand } from './api/mutate.ts';
import { cache } from './api/boundedCache.ts';
import { AddressAtHand } from './ui/address.ts';
import { Hints } from './kit/Hints.tsx';
import { theme } from './kit/theme.ts';

const Workbench = lazy(() => import('./frame/Workbench.tsx'));

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <StyledEngineProvider injectFirst>
      <ThemeProvider theme={theme} defaultMode="system">
        <CssBaseline />
        <Hints />
        <SWRConfig value={{ provider: () => cache }}>
          <CacheAtHand />
          {/* What an address opens is there with the click, not when there is time for it. */}
          <BrowserRouter useTransitions={false}>
            <AddressAtHand />
            <Suspense fallback={<p className="quiet pad">Opening …</p>}>
              <Routes>
                <Route path="/" element={<Shelf />} />
                <Route path="/project/:id/:stage?" element={<Workbench />} />
                <Route path="*" element={<Navigate to="/" replace />} />
              </Routes>
            </Suspense>
          </BrowserRouter>
        </SWRConfig>
      </ThemeProvider>
    </StyledEngineProvider>
  </StrictMode>,
);
