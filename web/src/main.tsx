import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';

import { learn } from './shared/texts/languages';

// Constants hold texts, too: they are read when the language is known.
const root = document.getElementById('root');
void learn(navigator.languages).then(async () => {
  const { App } = await import('./app/App');
  if (root)
    createRoot(root).render(
      <StrictMode>
        <App />
      </StrictMode>,
    );
});
