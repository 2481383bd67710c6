import type { Response } from 'express';

const HEARTBEAT_MS = 20_000;

/** Tells open pages over server-sent events that there are new facts; pages then fetch what they don't have. */
export interface Notices {
  listen(response: Response, cursor: number): void;
  tell(cursor: number): void;
  close(): void;
}

export function newNotices(): Notices {
  const open = new Set<Response>();
  const heartbeat = setInterval(() => {
    for (const response of open) response.write(': still here\n\n');
  }, HEARTBEAT_MS);
  heartbeat.unref();
  const write = (response: Response, cursor: number) => response.write(`event: facts\ndata: ${cursor}\n\n`);
  return {
    listen(response, cursor) {
      response.writeHead(200, { 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store' });
      write(response, cursor);
      open.add(response);
      response.on('close', () => open.delete(response));
    },
    tell(cursor) {
      for (const response of open) write(response, cursor);
    },
    close() {
      clearInterval(heartbeat);
      for (const response of open) response.end();
      open.clear();
    },
  };
}
