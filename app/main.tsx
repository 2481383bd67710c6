import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { App } from './App.tsx';
import { applyPreferences } from './shared/preferences.ts';
import { listenWhileShown, start } from './workspace/connect.ts';
import './theme.css';

applyPreferences();
const root = document.getElementById('root');
if (root === null) throw new Error('the page has no root');
listenWhileShown();
void start();
if (import.meta.env.PROD) void navigator.serviceWorker.register('/sw.js');
createRoot(root).render(
  <StrictMode>
    <App />
  </StrictMode>,
);
