// One command from a fresh clone to the running demo.
import { spawn } from 'node:child_process';
import { buildIfNeeded } from './build.mjs';
import { installIfNeeded } from './install.mjs';

process.chdir(new URL('..', import.meta.url).pathname);
installIfNeeded();
buildIfNeeded();
const server = spawn(process.execPath, ['dist/server/main.js', ...process.argv.slice(2)], {
  stdio: 'inherit',
});
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal));
server.on('exit', (code) => process.exit(code ?? 0));
