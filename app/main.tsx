import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { App } from './App.tsx';
import { applyPreferences } from './shared/page/preferences.ts';
import { Session } from './workspace/state/session.ts';
import { SessionContext } from './workspace/state/use-session.ts';
import './theme.css';

applyPreferences();
const root = document.getElementById('root');
if (root === null) throw new Error('the page has no root');
const session = new Session();
session.listenWhileShown();
void session.start();
if (import.meta.env.PROD) void navigator.serviceWorker.register('/sw.js');
createRoot(root).render(
  <StrictMode>
    <SessionContext value={session}>
      <App />
    </SessionContext>
  </StrictMode>,
);
