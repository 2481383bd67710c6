import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { systemClock } from '#server/clock.ts';
import { createDesk, deskExists, newAccessCode, openDesk } from '#server/desk/desk-folder.ts';
import { listen } from '#server/listen.ts';
import { buildDesk } from './build-desk.ts';

/** Starts Juncture with the demo's course desk. One fixed port: with another one the browser would show other data. */
const PORT = 7316;

function today(): string {
  return new Date().toISOString().slice(0, 10);
}

async function prepareDemo(data: string, fresh: boolean): Promise<{ folder: string; code: string }> {
  const folder = join(data, 'desk');
  const codeFile = join(data, 'access-code.txt');
  if (fresh && existsSync(folder)) {
    const kept = `${folder}-until-${new Date().toISOString().replace(/[:.]/g, '-')}`;
    renameSync(folder, kept);
    console.log(`The demo before this one is kept in ${kept}.`);
  }
  if (!deskExists(folder)) {
    mkdirSync(data, { recursive: true });
    const code = newAccessCode();
    const content = await buildDesk(today());
    // Another demo is another desk: its workspace stands beside the old one in the browser.
    const deskId = fresh ? `${content.deskId}-${Date.now().toString(36)}` : content.deskId;
    createDesk(folder, { ...content, deskId }, code);
    writeFileSync(codeFile, `${code}\n`, { mode: 0o600 });
  }
  return { folder, code: readFileSync(codeFile, 'utf8').trim() };
}

async function main(): Promise<void> {
  const unknown = process.argv.slice(2).find((given) => given !== '--new-demo');
  if (unknown !== undefined) {
    console.error(
      `“${unknown}” is not known. The one option is --new-demo: it begins a new term beside the old one.`,
    );
    process.exit(2);
  }
  const root = process.cwd();
  const { folder, code } = await prepareDemo(join(root, 'data'), process.argv.includes('--new-demo'));
  const desk = openDesk(folder);
  try {
    await listen({ desk, clock: systemClock, appFolder: join(root, 'dist', 'app'), port: PORT });
  } catch (error) {
    if (!(error instanceof Error && 'code' in error && error.code === 'EADDRINUSE')) throw error;
    console.error(
      `Port ${PORT} is taken by another program, perhaps by Juncture itself. Stop that one and start again.`,
    );
    process.exit(1);
  }
  const { id } = desk.state.student;
  console.log(`\nJuncture is ready:\n\n  http://127.0.0.1:${PORT}/#student=${id}&code=${code}\n`);
  console.log('The address signs you in as the demo’s student. Stop with Ctrl C.');
}

await main();
