// Builds the application and the server when something they are made of is newer than what was built.
import { execFileSync } from 'node:child_process';
import { existsSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const STAMP = 'dist/built';
const SOURCES = [
  'core',
  'formats',
  'app',
  'server',
  'demo',
  'e2e',
  'bench',
  'package-lock.json',
  'vite.config.ts',
  'vite.server.config.ts',
];

function newest(path) {
  const stat = statSync(path);
  if (!stat.isDirectory()) return stat.mtimeMs;
  // A browser test that fails leaves a picture there: no reason to build under the tests that go on.
  const names = readdirSync(path).filter((name) => name !== 'failures');
  return names.reduce((last, name) => Math.max(last, newest(join(path, name))), 0);
}

export function buildIfNeeded() {
  const built = existsSync(STAMP) ? statSync(STAMP).mtimeMs : 0;
  if (SOURCES.every((source) => newest(source) < built)) return;
  // Everything is said on the error stream: what a command prints stays its own.
  console.error('Building …');
  const vite = join('node_modules', 'vite', 'bin', 'vite.js');
  // Whoever calls, this is the build that ships: a test runner's NODE_ENV would make another one.
  const env = { ...process.env, NODE_ENV: 'production' };
  const started = new Date();
  execFileSync(process.execPath, [vite, 'build', '--logLevel', 'warn'], { stdio: ['ignore', 2, 2], env });
  execFileSync(process.execPath, [vite, 'build', '--config', 'vite.server.config.ts', '--logLevel', 'warn'], {
    stdio: ['ignore', 2, 2],
    env,
  });
  writeFileSync(STAMP, `${started.toISOString()}\n`);
}

if (process.argv[1] === import.meta.filename) buildIfNeeded();
