// All checks and tests, in order; goes on after a failure, and ends with one line that counts them.
import { spawnSync } from 'node:child_process';
import { readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { chromiumIsThere } from './chromium.mjs';
import { installIfNeeded } from './install.mjs';

process.chdir(new URL('..', import.meta.url).pathname);
installIfNeeded();

const bin = (name) => join('node_modules', '.bin', name);
const count = { passed: 0, failed: 0 };
const summary = [];

function run(command, args) {
  return spawnSync(command, args, { stdio: 'inherit', env: { ...process.env, NO_COLOR: '1' } }).status === 0;
}

function note(name, passed, failed, startedAt) {
  count.passed += passed;
  count.failed += failed;
  const seconds = ((Date.now() - startedAt) / 1000).toFixed(0);
  summary.push(
    `${failed === 0 ? 'ok    ' : 'FAILED'} ${name}: ${passed} passed, ${failed} failed, ${seconds} s`,
  );
}

function check(name, command, args) {
  console.log(`\n== ${name}`);
  const startedAt = Date.now();
  const ok = run(command, args);
  note(name, ok ? 1 : 0, ok ? 0 : 1, startedAt);
}

function tests(name, project) {
  console.log(`\n== ${name}`);
  const startedAt = Date.now();
  const report = join('node_modules', '.cache', `${project}.json`);
  rmSync(report, { force: true });
  const ok = run(bin('vitest'), [
    'run',
    '--project',
    project,
    '--reporter=default',
    '--reporter=json',
    `--outputFile=${report}`,
  ]);
  try {
    const { numPassedTests, numFailedTests, numTotalTests } = JSON.parse(readFileSync(report, 'utf8'));
    // A run that failed without a failed test, or ran none, is a failure too.
    const failed = Math.max(numFailedTests, ok && numTotalTests > 0 ? 0 : 1);
    note(name, numPassedTests, failed, startedAt);
  } catch {
    note(name, 0, 1, startedAt);
  }
}

check('format', bin('prettier'), ['--check', '--log-level', 'warn', '.']);
check('types', bin('tsc'), ['-b']);
check('lint', bin('eslint'), ['.', '--max-warnings', '0']);
check('arrows', bin('depcruise'), [
  '--config',
  '.dependency-cruiser.cjs',
  'core',
  'formats',
  'app',
  'server',
  'demo',
  'e2e',
]);
check('unused', bin('knip'), []);
tests('unit tests', 'unit');
check('build', process.execPath, ['scripts/build.mjs']);
if (chromiumIsThere()) tests('browser tests', 'e2e');
else note('browser tests', 0, 1, Date.now());

console.log(`\n${summary.join('\n')}\n\n${count.passed} passed, ${count.failed} failed`);
process.exit(count.failed === 0 ? 0 : 1);
