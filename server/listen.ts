import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { createApp, type ServerParts } from './app.ts';
import { markPending } from './marker/mark-pending.ts';
import { newNotices } from './notices.ts';

const MARKER_LOOKS_EVERY_MS = 400;

export interface RunningServer {
  readonly port: number;
  stop(): Promise<void>;
}

/**
 * Starts the server on the loopback address. Port 0 takes any free one.
 * @throws what Node says where the port is taken (code EADDRINUSE)
 */
export async function listen(parts: Omit<ServerParts, 'notices'>): Promise<RunningServer> {
  const notices = newNotices();
  const { server, port } = await new Promise<{ server: Server; port: number }>((resolve, reject) => {
    // The address is part of what is checked, so it has to be known before the first request.
    const probe = createApp({ ...parts, notices }).listen(parts.port, '127.0.0.1', (error) => {
      if (error) reject(error);
      else resolve({ server: probe, port: (probe.address() as AddressInfo).port });
    });
  });
  let busy = false;
  const look = async () => {
    if (busy) return;
    busy = true;
    try {
      if ((await markPending(parts.desk, parts.clock.now())) > 0) notices.tell(parts.desk.state.facts.length);
    } catch (error) {
      console.error('The marker stopped at an attempt:', error);
    } finally {
      busy = false;
    }
  };
  const marker = setInterval(() => void look(), MARKER_LOOKS_EVERY_MS);
  return {
    port,
    stop: () =>
      new Promise((resolve) => {
        clearInterval(marker);
        notices.close();
        server.close(() => resolve());
        server.closeAllConnections();
      }),
  };
}
