// All checks and tests; goes on after a failure, and ends with one line that counts them.
import { spawn } from 'node:child_process';
import { readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { chromiumIsThere } from './chromium.mjs';
import { installIfNeeded } from './install.mjs';

process.chdir(new URL('..', import.meta.url).pathname);
installIfNeeded();

const bin = (name) => join('node_modules', '.bin', name);
const count = { passed: 0, failed: 0 };
const summary = [];

/** Runs a command to its end; what it prints comes out in one piece, under its name. */
function run(name, command, args) {
  return new Promise((resolve) => {
    const startedAt = Date.now();
    const child = spawn(command, args, {
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, NO_COLOR: '1' },
    });
    let printed = '';
    for (const stream of [child.stdout, child.stderr])
      stream.setEncoding('utf8').on('data', (text) => (printed += text));
    child.on('error', (error) => (printed += `${error.message}\n`));
    child.on('close', (code) => {
      const seconds = ((Date.now() - startedAt) / 1000).toFixed(0);
      process.stdout.write(`\n== ${name}\n${printed}`);
      resolve({ ok: code === 0, seconds });
    });
  });
}

function note(name, passed, failed, seconds) {
  count.passed += passed;
  count.failed += failed;
  summary.push(
    `${failed === 0 ? 'ok    ' : 'FAILED'} ${name}: ${passed} passed, ${failed} failed, ${seconds} s`,
  );
}

const check = (name, command, args) => async () => {
  const { ok, seconds } = await run(name, command, args);
  note(name, ok ? 1 : 0, ok ? 0 : 1, seconds);
};

const tests = (name, project) => async () => {
  const report = join('node_modules', '.cache', `${project.replace('*', '')}.json`);
  rmSync(report, { force: true });
  const { ok, seconds } = await run(name, bin('vitest'), [
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
    note(name, numPassedTests, failed, seconds);
  } catch {
    note(name, 0, 1, seconds);
  }
};

/** Works through jobs in order, as many at a time as are worth it on a small machine. */
async function inLanes(jobs) {
  const left = [...jobs];
  const lane = async () => {
    for (let job = left.shift(); job !== undefined; job = left.shift()) await job();
  };
  await Promise.all([lane(), lane()]);
}

const chromium = chromiumIsThere();
await inLanes([
  check('types', bin('tsc'), ['-b']),
  check('build', process.execPath, ['scripts/build.mjs']),
  check('lint', bin('eslint'), ['.', '--max-warnings', '0']),
  tests('unit tests', 'unit*'),
  check('format', bin('prettier'), ['--check', '--log-level', 'warn', '.']),
  check('arrows', bin('depcruise'), [
    '--config',
    '.dependency-cruiser.cjs',
    'core',
    'formats',
    'app',
    'server',
    'demo',
    'e2e',
  ]),
  check('unused', bin('knip'), []),
]);
if (chromium) await tests('browser tests', 'e2e')();
else note('browser tests', 0, 1, 0);

console.log(`\n${summary.join('\n')}\n\n${count.passed} passed, ${count.failed} failed`);
process.exit(count.failed === 0 ? 0 : 1);
