// Finds Chromium for the browser tests, and qpdf and pdftotext, which read the PDFs that were written; installs them from Debian's packages
// when that is possible. Chromium's headless build draws no window of its own, which takes half of the time; the whole browser
// does as well. The program itself, not the script around it, can be killed.
import { execFileSync } from 'node:child_process';
import { existsSync } from 'node:fs';

const COMMAND =
  'apt-get update && apt-get install -y --no-install-recommends chromium chromium-headless-shell qpdf poppler-utils';
const PATHS = ['/usr/lib/chromium/chromium-headless-shell', '/usr/bin/chromium'];

/** @returns {boolean} whether all of them are there */
export function chromiumIsThere() {
  const isThere = () =>
    (process.env.CHROMIUM ? [process.env.CHROMIUM] : PATHS).some((path) => existsSync(path)) &&
    existsSync('/usr/bin/qpdf') &&
    existsSync('/usr/bin/pdftotext');
  if (isThere()) return true;
  if (process.getuid?.() === 0) {
    console.log('Installing Chromium, qpdf and poppler-utils from Debian’s packages …');
    try {
      execFileSync('sh', ['-c', COMMAND], { stdio: ['ignore', 'ignore', 'inherit'] });
    } catch {
      // Told below, with the command to run.
    }
  }
  if (isThere()) return true;
  console.error(
    `The tests need Chromium, qpdf and poppler-utils. Run this once as root, then again npm test:\n\n  ${COMMAND}\n`,
  );
  return false;
}
