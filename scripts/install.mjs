// Installs what package.json asks for, if it is not there yet or not what the lockfile says.
import { execFileSync } from 'node:child_process';
import { existsSync, statSync } from 'node:fs';

const INSTALLED = 'node_modules/.package-lock.json';

export function installIfNeeded() {
  if (existsSync(INSTALLED) && statSync(INSTALLED).mtimeMs >= statSync('package-lock.json').mtimeMs) return;
  console.error('Installing what is missing …');
  // Not "npm ci": it calls a lockfile out of step when optional binaries of other platforms are not in it.
  // "--no-save": which optional binaries the registry at hand has must not change the lockfile.
  execFileSync('npm', ['install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error'], {
    stdio: ['ignore', 2, 2],
    shell: process.platform === 'win32',
  });
}
