// The checks of a working minute: types, and lint, format and unit tests of what changed since the last commit.
import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { installIfNeeded } from './install.mjs';

process.chdir(new URL('..', import.meta.url).pathname);
installIfNeeded();

const git = (...args) => execFileSync('git', args, { encoding: 'utf8' }).split('\n').filter(existsSync);
const changed = [
  ...new Set([...git('diff', '--name-only', 'HEAD'), ...git('ls-files', '--others', '--exclude-standard')]),
];
const code = changed.filter((name) => /\.(tsx?|mjs|cjs)$/.test(name));

const failed = [];
function run(name, command, args) {
  console.log(`== ${name}`);
  const { status } = spawnSync(join('node_modules', '.bin', command), args, { stdio: 'inherit' });
  if (status !== 0) failed.push(name);
}

run('types', 'tsc', ['-b']);
if (code.length > 0)
  run('lint', 'eslint', [
    '--max-warnings',
    '0',
    '--cache',
    '--cache-location',
    'node_modules/.cache/eslint',
    ...code,
  ]);
if (changed.length > 0)
  run('format', 'prettier', ['--check', '--ignore-unknown', '--log-level', 'warn', ...changed]);
run('unit tests', 'vitest', ['run', '--project', 'unit*', '--changed', '--passWithNoTests']);

console.log(failed.length === 0 ? 'all passed' : `failed: ${failed.join(', ')}`);
process.exit(failed.length === 0 ? 0 : 1);
