import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { clockAhead, systemClock } from '#server/clock.ts';
import { createDesk, deskExists, newAccessCode, openDesk } from '#server/desk/desk-folder.ts';
import { listen } from '#server/listen.ts';
import { startOptions, UnknownTrial } from '#server/trial.ts';
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

function optionsGiven() {
  try {
    return startOptions(process.argv.slice(2));
  } catch (error) {
    if (!(error instanceof UnknownTrial)) throw error;
    console.error(error.message);
    process.exit(2);
  }
}

async function main(): Promise<void> {
  const { newDemo, trial } = optionsGiven();
  const root = process.cwd();
  const { folder, code } = await prepareDemo(join(root, 'data'), newDemo);
  const desk = openDesk(folder);
  try {
    await listen({
      desk,
      clock: clockAhead(systemClock, trial.aheadMs),
      appFolder: join(root, 'dist', 'app'),
      port: PORT,
      trial,
    });
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
