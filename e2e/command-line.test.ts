import { spawnSync } from 'node:child_process';
import { expect, test } from 'vitest';

const juncture = (...args: string[]) =>
  spawnSync('npm', ['run', '--silent', 'juncture', '--', ...args], { encoding: 'utf8' });

test('inspect prints JSON and nothing else, or one line and exit code 1', () => {
  const read = juncture('inspect', 'formats/samples/dams.odt');
  expect([read.status, JSON.parse(read.stdout)]).toMatchObject([0, { kind: 'odt', remarks: { length: 7 } }]);
  const locked = juncture('inspect', 'formats/samples/locked.pdf');
  const said = locked.stderr.split('\n').filter((line) => line.startsWith('formats/'));
  expect([locked.status, locked.stdout, said]).toEqual([
    1,
    '',
    [
      'formats/samples/locked.pdf: the PDF is locked; give its password with --password, or save a copy without one',
    ],
  ]);
  expect(juncture('inspect', 'nothing-there.pdf').status).toBe(1);
  expect(juncture('look').status).toBe(2);
});
