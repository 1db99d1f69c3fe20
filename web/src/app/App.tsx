import CssBaseline from '@mui/material/CssBaseline';
import { ThemeProvider } from '@mui/material/styles';
import { QueryClientProvider } from '@tanstack/react-query';
import { useState } from 'react';
import { BrowserRouter } from 'react-router';

import { Notices } from '../shared/ui/Notices';
import { beginAt } from './prefetch';
import { Explanations } from './Explanations';
import { makeQueryClient } from './queryClient';
import { AppRoutes } from './AppRoutes';
import { theme } from './theme';

export function App() {
  const [client] = useState(() => {
    const made = makeQueryClient();
    beginAt(made, window.location);
    return made;
  });
  return (
    <ThemeProvider theme={theme} defaultMode="system">
      <CssBaseline />
      <QueryClientProvider client={client}>
        <Notices>
          <BrowserRouter>
            <AppRoutes />
            <Explanations />
          </BrowserRouter>
        </Notices>
      </QueryClientProvider>
    </ThemeProvider>
  );
}
