// The command line: installs and builds what is missing, saying so on the error stream only, then runs it.
import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { join } from 'node:path';
import { buildIfNeeded } from './build.mjs';
import { installIfNeeded } from './install.mjs';

// Files are named from where the command is given, or from where npm was called.
const from = process.env.INIT_CWD ?? process.cwd();
process.chdir(fileURLToPath(new URL('..', import.meta.url)));
installIfNeeded();
buildIfNeeded();
const program = join(process.cwd(), 'dist', 'server', 'juncture.js');
const { status } = spawnSync(process.execPath, [program, ...process.argv.slice(2)], {
  stdio: 'inherit',
  cwd: from,
});
process.exit(status ?? 1);
