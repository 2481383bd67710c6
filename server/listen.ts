import { createServer } from 'node:http';
import { createApp, type ServerParts } from './app.ts';
import { markPending } from './marker/mark-pending.ts';
import { newNotices } from './notices.ts';

const MARKER_LOOKS_EVERY_MS = 400;

export interface RunningServer {
  /** Tells open pages that the desk's record has grown. */
  tell(): void;
  stop(): Promise<void>;
}

/**
 * Starts the server on the loopback address.
 * @throws what Node says where the port is taken (code EADDRINUSE)
 */
export async function listen(parts: Omit<ServerParts, 'notices'>): Promise<RunningServer> {
  const notices = newNotices();
  const server = createServer(createApp({ ...parts, notices }));
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(parts.port, '127.0.0.1', resolve);
  });
  const markedAfter = parts.trial?.markedAfterSeconds ?? null;
  let busy = false;
  const leftOut = new Set<string>();
  const look = async () => {
    if (busy) return;
    busy = true;
    const marked = await markPending(parts.desk, parts.clock.now(), leftOut, markedAfter).finally(() => {
      busy = false;
    });
    if (marked > 0) notices.tell(parts.desk.state.facts.length);
  };
  const marker = setInterval(() => void look(), MARKER_LOOKS_EVERY_MS);
  return {
    tell: () => notices.tell(parts.desk.state.facts.length),
    stop: () =>
      new Promise((resolve) => {
        clearInterval(marker);
        notices.close();
        server.close(() => resolve());
        server.closeAllConnections();
      }),
  };
}
