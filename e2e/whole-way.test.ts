import { createHash } from 'node:crypto';
import { readFile, mkdtemp, readdir, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Page } from 'puppeteer-core';
import { expect } from 'vitest';
import { readDocx } from '#formats/docx/read-docx.ts';
import { arriveFirst, clickRole, openStation, REPORT, seeText, settled, until } from './harness.ts';
import { pageTest } from './page-test.ts';
import { chooseFile, markedBytes, rewrittenFile } from './files.ts';

/** How many remarks of the report the Read station says are read. */
function readCount(page: Page): Promise<number> {
  return page.$eval('nav[aria-label="The line of this assignment"]', (line) =>
    Number(/Read\s*(\d+) of/.exec(line.textContent)?.[1] ?? -1),
  );
}

async function seeReadCount(page: Page, least: number): Promise<void> {
  await until(
    page,
    (wanted) => {
      const line = document.querySelector('nav[aria-label="The line of this assignment"]')?.textContent ?? '';
      return Number(/Read\s*(\d+) of/.exec(line)?.[1] ?? -1) >= Number(wanted);
    },
    String(least),
  );
}

pageTest(
  'a marked report goes the whole way, with a reload in the middle of each step',
  async ({ page, desk }) => {
    const folder = await mkdtemp(join(tmpdir(), 'juncture-way-'));
    const session = await page.createCDPSession();
    await session.send('Browser.setDownloadBehavior', {
      behavior: 'allow',
      downloadPath: folder,
      browserContextId: page.browserContext().id ?? '',
    });
    const reload = () => page.reload({ waitUntil: 'load' });

    // 1 Arrivals: what came back is there and counted; reloading keeps the session though the code left the address.
    await arriveFirst(page, desk);
    expect(page.url()).not.toContain('code=');
    await reload();
    for (const title of ['Who decides about the common?', 'Stand survey', 'Lab activity'])
      await seeText(page, title);

    // 2 The assignment: tally, score, rules.
    await (await seeText(page, REPORT)).click();
    await until(page, () => location.pathname.startsWith('/a/'));
    await seeText(page, '28.5 of 40');
    await reload();
    await seeText(page, 'Another attempt can lift the score to 85 % of the points (34) and never lowers it.');
    await seeText(page, '38 not read');

    // 3 Read: a remark read through counts; stepping past does not.
    await clickRole(page, 'link', 'Start reading');
    await (await page.waitForSelector('[role="tab"]::-p-text(In the paper)'))?.click();
    await page.waitForSelector('[data-page="1"] canvas');
    await page.keyboard.press('n');
    await seeReadCount(page, 1);
    const before = await readCount(page);
    await reload();
    await seeReadCount(page, before);
    expect(await page.$('button::-p-text(Send to the course desk)')).toBeNull();

    // 4 Decide: one key each; undo; reload.
    await openStation(page, 'Decide');
    await seeText(page, 'Remark 1 of 52');
    for (const key of ['a', 'q', 'k'] as const) {
      await page.keyboard.press(key);
      await until(page, () => document.querySelector('main [aria-pressed="true"]') !== null);
      await page.keyboard.press('n');
      await until(
        page,
        () =>
          document.querySelector('main [aria-label="Decide about this remark"] [aria-pressed="true"]') ===
          null,
      );
    }
    await page.keyboard.press('c');
    await until(
      page,
      () => document.querySelector('main [aria-pressed="true"]')?.textContent.includes('Carry') === true,
    );
    await reload();
    await until(
      page,
      () => document.querySelector('main [aria-pressed="true"]')?.textContent.includes('Carry') === true,
    );
    await page.keyboard.down('Control');
    await page.keyboard.press('z');
    await page.keyboard.up('Control');
    await seeText(page, 'Undone: carry mark, on “');
    await until(page, () => document.querySelector('main [aria-pressed="true"]') === null);
    for (let i = 4; i <= 8; i++) {
      await page.keyboard.press('a');
      await until(page, () => document.querySelector('main [aria-pressed="true"]') !== null);
      await page.keyboard.press('n');
      await until(
        page,
        () =>
          document.querySelector('main [aria-label="Decide about this remark"] [aria-pressed="true"]') ===
          null,
      );
    }
    await clickRole(page, 'link', '1 to ask');
    await seeText(page, 'Dr Aune Keld');

    // 5 Plan: tasks with minutes and points; moved by keyboard, ticked, kept.
    await page.goto(`${desk.address}/a/skarn-moss-report/plan`);
    await seeText(page, 'To do, in this order');
    const order = () =>
      page.$$eval('[data-task]', (rows) => rows.map((row) => row.getAttribute('data-task')));
    await page.waitForSelector('[data-task]');
    const proposed = await order();
    expect(proposed).toHaveLength(6);
    await (await page.waitForSelector('[data-task] button'))?.focus();
    await page.keyboard.press('Space');
    await seeAnnounced(page, 'place 1 of 6');
    await page.keyboard.press('ArrowDown');
    await seeAnnounced(page, 'place 2 of 6');
    await page.keyboard.press('Space');
    await seeText(page, 'In your own order.');
    const moved = await order();
    expect(moved).toEqual([proposed[1], proposed[0], ...proposed.slice(2)]);
    // By mouse, the last one to the top, and back with undo.
    const grip = async (n: number) => {
      const handles = await page.$$('[data-task] [aria-roledescription]');
      const box = await handles[n].boundingBox();
      return { x: (box?.x ?? 0) + 8, y: (box?.y ?? 0) + 8 };
    };
    await settled(page);
    const [from, to] = [await grip(2), await grip(0)];
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move(from.x, from.y - 20, { steps: 4 });
    await page.mouse.move(to.x, to.y - 4, { steps: 8 });
    await page.mouse.up();
    await until(
      page,
      (id) => document.querySelector('[data-task]')?.getAttribute('data-task') === id,
      moved[2] ?? '',
    );
    await clickRole(page, 'button', 'Undo');
    await until(
      page,
      (id) => document.querySelector('[data-task]')?.getAttribute('data-task') === id,
      moved[0] ?? '',
    );
    await (await page.waitForSelector('[data-task] [role="checkbox"]'))?.click();
    await seeText(page, '1 of 6 done');
    await reload();
    await seeText(page, '1 of 6 done');
    expect(await order()).toEqual(moved);

    // 6 Revise: begun from the marked paper, typed into, reloaded; then a file from elsewhere comes in.
    await openStation(page, 'Revise');
    await clickRole(page, 'button', 'Begin the new draft');
    await page.waitForSelector('[aria-label="Text of the draft"] h1');
    await page.waitForSelector('[data-outcome="untouched"]');
    const claim = await page.waitForSelector(
      '[aria-label="Text of the draft"] p::-p-text(Skarn Moss is a raised bog)',
    );
    await claim?.click({ count: 3 });
    await page.keyboard.type('A wholly new summary stands here now. ');
    await (await page.waitForSelector('aside button::-p-text(all 52)'))?.click();
    await page.waitForSelector('[data-outcome="reworded"], [data-outcome="gone"], [data-outcome="unsure"]');
    await until(
      page,
      () => document.querySelector('header [role="status"]')?.textContent.startsWith('Saved') === true,
    );
    await reload();
    await seeText(page, 'A wholly new summary stands here now.');
    const bullet = await rewrittenFile(desk, folder);
    await chooseFile(page, 'Bring in your file', bullet);
    await seeText(page, 'is the draft now');
    await seeText(page, 'This report asks one question');
    await until(page, () => document.querySelectorAll('[data-outcome="reworded"]').length >= 2);

    // 7 Check: what is unanswered, and both versions word by word.
    await openStation(page, 'Check');
    await seeText(page, 'without an answer');
    await page.waitForSelector('ins::-p-text(Abery and Lunt)');
    await reload();
    await page.waitForSelector('del::-p-text(Everybody agrees)');

    // 8 Send: receipt, waiting, the new result as a notice, before and after.
    await openStation(page, 'Send');
    await seeText(page, 'This will be attempt 2 of 2');
    await clickRole(page, 'button', 'Send to the course desk');
    await seeText(page, 'Sending can’t be taken back.');
    await (await page.waitForSelector('[role="dialog"] button::-p-text(Send to the course desk)'))?.click();
    await seeText(page, 'Waiting to be marked');
    await seeText(page, 'Receipt');
    const sent = desk.folder.state.facts.find((fact) => fact.kind === 'attempt' && fact.value.number === 2);
    const receipt = sent?.kind === 'attempt' ? sent.value.receipt : null;
    expect(receipt?.files).toHaveLength(2);
    await seeText(page, receipt?.files[0].hash ?? 'no receipt');
    await reload();
    await seeText(page, receipt?.id ?? 'no receipt');
    desk.clock.advance(60_000);
    await seeText(page, `Dr Aune Keld has marked “${REPORT}”.`);
    await seeText(page, 'Before and after');
    await reload();
    await seeText(page, '34 of 40 count under the rules.');
    // What was written elsewhere goes byte for byte.
    expect(receipt?.files[0].hash).toBe(
      createHash('sha256')
        .update(await readFile(bullet))
        .digest('hex'),
    );
    const paper = readDocx(
      new Uint8Array(await readFile(desk.folder.pathOfFile(receipt?.files[0].hash ?? '') ?? '')),
    );
    expect(paper.blocks.some((block) => block.text.includes('This report asks one question'))).toBe(true);

    const sheet = readDocx(
      new Uint8Array(await readFile(desk.folder.pathOfFile(receipt?.files[1].hash ?? '') ?? '')),
    ).blocks.map((block) => block.text);
    expect(sheet.filter((text) => text.startsWith('Rewritten: “'))).not.toEqual([]);
    expect(sheet.filter((text) => text.startsWith('Now: '))).not.toEqual([]);
    expect(sheet.find((text) => text.includes('remarks came back'))).toMatch(/: 2 answered/);

    // 9 The workspace as one ZIP, and back.
    await page.goto(`${desk.address}/shelf`);
    // What the marker wrote beside the new text is here before everything is saved.
    await seeText(page, ', remarks.jsonld');
    await clickRole(page, 'button', 'Save everything as a ZIP');
    await seeText(page, 'Saved as juncture-workspace-2026-11-02.zip');
    const kept = await allRecords(page);
    const zip = await downloaded(folder);
    await page.goto(`${desk.address}/a/skarn-moss-report/plan`);
    await (await page.waitForSelector('[data-task]:nth-child(2) [role="checkbox"]'))?.click();
    await seeText(page, '2 of 6 done');
    await page.goto(`${desk.address}/shelf`);
    await chooseFile(page, 'Read a ZIP in', zip);
    await clickRole(page, 'button', 'Replace everything here');
    await seeText(page, 'The workspace is as it was saved.');
    expect(await allRecords(page)).toEqual(kept);
    await reload();
    await page.goto(`${desk.address}/a/skarn-moss-report/plan`);
    await seeText(page, '1 of 6 done');
    // Read opens the paper that was marked last; the first one is beside it.
    const first = createHash('sha256')
      .update(await markedBytes(desk))
      .digest('hex');
    await page.goto(`${desk.address}/a/skarn-moss-report/read?material=paper&file=${first}`);
    await page.waitForSelector('[data-page="1"] canvas');
    expect(await page.$eval('[aria-setsize]', (slip) => slip.getAttribute('aria-setsize'))).toBe('38');
    await rm(folder, { recursive: true, force: true });
  },
);

async function seeAnnounced(page: Page, text: string): Promise<void> {
  await until(
    page,
    (wanted) => [...document.querySelectorAll('[aria-live]')].some((e) => e.textContent.includes(wanted)),
    text,
  );
}

/** The ZIP that the browser saved. */
async function downloaded(folder: string): Promise<string> {
  for (;;) {
    const name = (await readdir(folder)).find((file) => file.endsWith('.zip'));
    if (name !== undefined) return join(folder, name);
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}

/** Every record of the workspace, as the browser keeps it. */
function allRecords(page: Page): Promise<unknown> {
  return page.evaluate(
    () =>
      new Promise((resolve, reject) => {
        const opening = indexedDB.open('juncture/hollowmere-demo/ines-tarrow');
        opening.onerror = () => reject(new Error('no database'));
        opening.onsuccess = () => {
          const all = opening.result.transaction('records').objectStore('records').getAll();
          all.onsuccess = () => {
            opening.result.close();
            // When it was saved is noted after it was.
            resolve((all.result as { key: string }[]).filter(({ key }) => key !== 'lastBackup'));
          };
        };
      }),
  );
}
