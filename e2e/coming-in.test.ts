import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle, Page } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect } from 'vitest';
import { clickRole, letInstall, REPORT, seeText, signIn, until } from './harness.ts';
import { drop, markedBytes } from './files.ts';
import { pageTest } from './page-test.ts';

let folder = '';
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'juncture-in-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

async function onDisk(name: string, bytes: Uint8Array | string): Promise<string> {
  const path = join(folder, name);
  await writeFile(path, bytes);
  return path;
}

async function choose(page: Page, path: string): Promise<void> {
  const input = (await page.waitForSelector('aside input[type="file"]')) as ElementHandle<HTMLInputElement>;
  await input.uploadFile(path);
}

describe('files alone', () => {
  pageTest(
    'a dropped PDF becomes an assignment of its own, goes its way, and can be taken back',
    async ({ page, desk, expectFault }) => {
      expectFault(/401/);
      await page.goto(desk.address);
      await clickRole(page, 'button', 'Work from files alone');
      await seeText(page, 'Nothing here yet.');
      await drop(page, ['My_marked paper.pdf', await markedBytes(desk)]);
      await seeText(page, '38 remarks found');
      await until(page, () => location.pathname.startsWith('/a/'));
      await seeText(page, 'not read');
      await page.reload();
      await (await seeText(page, 'Start reading')).click();
      await page.waitForSelector('[data-page="1"] canvas');
      await until(
        page,
        () => document.querySelector('[aria-setsize]')?.getAttribute('aria-setsize') === '38',
      );
      await page.keyboard.press('n');
      await page.keyboard.press('a');
      await seeText(page, '0 of 1 done');
      await page.goto(`${desk.address}/`);
      await seeText(page, 'My marked paper');
      await drop(page, ['the same again.pdf', await markedBytes(desk)]);
      await seeText(page, 'is here already; nothing was added.');
      await (await seeText(page, 'My marked paper')).click();
      await seeText(page, 'From a file; not in a course yet');
      await clickRole(page, 'button', 'Undo');
      await seeText(page, 'Undone: decided “Act”, on “');
      await clickRole(page, 'button', 'Undo');
      await seeText(page, 'There is no such assignment here.');
    },
  );

  pageTest('a file that can’t be read gives one sentence and changes nothing', async ({ page, desk }) => {
    await signIn(page, desk);
    const whole = await markedBytes(desk);
    const cases: [string, Uint8Array | string, string][] = [
      ['letter.pdf', 'Dear Ines, see you on Monday.', '“letter.pdf” is not a PDF, whatever its name says.'],
      ['cut.pdf', whole.subarray(0, 3000), '“cut.pdf” is damaged and can’t be read.'],
      ['nothing.pdf', '', '“nothing.pdf” is empty.'],
      [
        'page.pdf',
        '<!doctype html><p>Please sign in first',
        '“page.pdf” is not a PDF, whatever its name says.',
      ],
      ['photo.jpg', '\0\0\0\x18ftypheic\0\0', '“photo.jpg” is a HEIC picture, which browsers don’t show.'],
      ['odd.bin', '\x01\0\x02', '“odd.bin” is of a kind that is not read here.'],
      [
        'empty.jsonld',
        '{"@context": "http://www.w3.org/ns/anno.jsonld", "type": "AnnotationPage"}',
        'There are no remarks in “empty.jsonld”.',
      ],
    ];
    for (const [name, bytes, sentence] of cases) {
      await choose(page, await onDisk(name, bytes));
      await seeText(page, sentence);
    }
    await page.evaluate(() => {
      const dataTransfer = new DataTransfer();
      dataTransfer.items.add(new File([new Uint8Array(301 * 1024 * 1024)], 'huge.pdf'));
      window.dispatchEvent(new DragEvent('drop', { dataTransfer, bubbles: true, cancelable: true }));
    });
    await seeText(page, '“huge.pdf” is larger than 300 MB.');
    await page.reload();
    await seeText(page, '38 not read');
    expect(await page.$$('main ul > li h2')).toHaveLength(2);
  });
});

describe('the course desk', () => {
  pageTest(
    'a wrong access code is refused without saying which part was wrong',
    async ({ page, desk, expectFault }) => {
      expectFault(/40[13]/);
      await page.goto(`${desk.address}/#student=ines-tarrow&code=NOT-THIS`);
      await seeText(page, 'Sign in at your course desk');
      expect(page.url()).not.toContain('NOT-THIS');
      for (const [name, code] of [
        ['ines-tarrow', 'WRONG'],
        ['nobody', 'TESTS-TESTS'],
      ]) {
        const [student, secret] = await page.$$('form input');
        await student.click({ count: 3 });
        await student.type(name);
        await secret.click({ count: 3 });
        await secret.type(code);
        await clickRole(page, 'button', 'Sign in');
        await seeText(page, 'Name and access code don’t fit together.');
      }
    },
  );

  pageTest(
    'when it can’t be reached everything else works, and what waits goes later',
    async ({ page, desk, expectFault }) => {
      expectFault(/ERR_CONNECTION|Failed to load resource|ERR_INCOMPLETE|ERR_EMPTY/);
      await signIn(page, desk);
      await page.goto(`${desk.address}/a/skarn-moss-report/revise`);
      await clickRole(page, 'button', 'Begin the new draft');
      await page.waitForSelector('[aria-label="Text of the draft"] p');
      await page.keyboard.press('Tab');
      await (await seeText(page, 'Send')).click();
      await seeText(page, 'This will be attempt 2 of 2');
      await letInstall(page);
      // It can be put among the device's own applications.
      const manifest = await page.$eval('link[rel="manifest"]', (link) => link.getAttribute('href'));
      const { name, icons } = (await (await fetch(`${desk.address}${manifest ?? ''}`)).json()) as {
        name: string;
        icons: { src: string }[];
      };
      expect(name).toBe('Juncture');
      expect((await fetch(desk.address + icons[0].src)).headers.get('content-type')).toContain('svg');
      await desk.stop();
      await seeText(page, 'The course desk can’t be reached.');
      await page.reload();
      await seeText(page, 'This will be attempt 2 of 2');
      await clickRole(page, 'button', 'Send to the course desk');
      await (await page.waitForSelector('[role="dialog"] button::-p-text(Send to the course desk)'))?.click();
      await seeText(page, 'The attempt waits to go.');
      await (
        await page.waitForSelector('nav[aria-label="The line of this assignment"] ::-p-text(Decide)')
      )?.click();
      await seeText(page, 'Remark 1 of 52');
      await page.keyboard.press('a');
      await seeText(page, '0 of 1 done');
      await desk.start();
      await seeText(page, 'desk reached');
      await page.goto(`${desk.address}/a/skarn-moss-report/send`);
      await seeText(page, 'Receipt');
      const attempts = desk.folder.state.facts.filter(
        (f) => f.kind === 'attempt' && f.value.assignmentId === 'skarn-moss-report',
      );
      expect(attempts).toHaveLength(2);
      // Nothing was rewritten, so nothing is won.
      desk.clock.advance(60_000);
      await seeText(page, 'Before and after');
      await seeText(page, '28.5 of 40 count under the rules.');
    },
  );

  pageTest(
    'a server that was started anew is caught up with while the page stays open',
    async ({ page, desk, expectFault }) => {
      expectFault(/ERR_CONNECTION|Failed to load resource|ERR_INCOMPLETE|ERR_EMPTY/);
      await signIn(page, desk);
      await desk.stop();
      await seeText(page, 'desk not reached');
      desk.folder.update((state) => ({
        ...state,
        facts: state.facts.concat(
          state.facts.flatMap((fact) =>
            fact.kind === 'marking' && fact.value.assignmentId === 'dip-well-lab'
              ? [
                  {
                    ...fact,
                    seq: state.facts.length + 1,
                    value: {
                      ...fact.value,
                      id: 'corrected' as never,
                      overall: 'Corrected: one reading was off.',
                    },
                  },
                ]
              : [],
          ),
        ),
      }));
      await desk.start();
      await seeText(page, 'desk reached');
      await seeText(page, 'has changed the marking of “Lab activity: reading a dip well”');
      await seeText(page, '1 remark changed after return');
      await seeText(page, REPORT);
    },
  );
});
