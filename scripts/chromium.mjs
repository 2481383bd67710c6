// Finds Chromium for the browser tests, and qpdf, which reads the PDFs that were written; installs them from Debian's packages
// when that is possible. Chromium's headless build draws no window of its own, which takes half of the time; the whole browser
// does as well. The program itself, not the script around it, can be killed.
import { execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';

const COMMAND =
  'apt-get update && apt-get install -y --no-install-recommends chromium chromium-headless-shell qpdf';
const PATHS = ['/usr/lib/chromium/chromium-headless-shell', '/usr/bin/chromium'];

/** @returns {boolean} whether both are there */
export function chromiumIsThere() {
  const isThere = () =>
    (process.env.CHROMIUM ? [process.env.CHROMIUM] : PATHS).some((path) => existsSync(path)) &&
    existsSync('/usr/bin/qpdf');
  if (isThere()) return true;
  if (process.getuid?.() === 0) {
    console.log('Installing Chromium and qpdf from Debian’s packages …');
    try {
      execFileSync('sh', ['-c', COMMAND], { stdio: ['ignore', 'ignore', 'inherit'] });
    } catch {
      // Told below, with the command to run.
    }
  }
  if (isThere()) return true;
  console.error(
    `The tests need Chromium and qpdf. Run this once as root, then again npm test:\n\n  ${COMMAND}\n`,
  );
  return false;
}
