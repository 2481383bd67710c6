// Finds Chromium for the browser tests; installs it from Debian's packages when that is possible.
import { execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';

const COMMAND = 'apt-get update && apt-get install -y --no-install-recommends chromium';

/** @returns {boolean} whether Chromium is there */
export function chromiumIsThere() {
  const path = process.env.CHROMIUM ?? '/usr/bin/chromium';
  if (existsSync(path)) return true;
  if (process.getuid?.() === 0) {
    console.log('Installing Chromium from Debian’s packages …');
    try {
      execFileSync('sh', ['-c', COMMAND], { stdio: ['ignore', 'ignore', 'inherit'] });
    } catch {
      // Told below, with the command to run.
    }
  }
  if (existsSync(path)) return true;
  console.error(
    `The browser tests need Chromium. Run this once as root, then again npm test:\n\n  ${COMMAND}\n`,
  );
  return false;
}
