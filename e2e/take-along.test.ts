import { describe, expect } from 'vitest';
import { readMarkedPdf } from '#formats/pdf/read-marked-pdf.ts';
import { openPdf } from '#formats/pdf/open-pdf.ts';
import { sample } from '#formats/samples/sample.ts';
import { saveBy } from './downloads.ts';
import { drop, openDropped, takeIn } from './files.ts';
import { arrive, clickRole, seeText, signIn, until } from './harness.ts';
import { pageTest, PHONE } from './page-test.ts';

const TAKE = '/a/skarn-moss-report/take';

describe('what is taken along', () => {
  pageTest(
    'a paper is saved as a PDF that any reader opens, with every remark in it',
    async ({ page, desk }) => {
      await signIn(page, desk);
      await page.goto(`${desk.address}/a/skarn-moss-report`);
      await (await seeText(page, 'Put something together to take along')).click();
      await seeText(page, 'A pack for a meeting');
      const { name, bytes } = await saveBy(page, () =>
        clickRole(page, 'button', 'Save as PDF Skarn Moss report, marked.pdf'),
      );
      expect(name).toBe(
        'MIRE 210, Rewetting Skarn Moss, Skarn Moss report, marked with remarks, 2026-11-02.pdf',
      );
      await seeText(page, `Saved as ${name}.`);
      const { marks, paper } = await readMarkedPdf(bytes, null);
      const there = desk.folder.state.facts.length;
      expect(there).toBeGreaterThan(0);
      expect(marks.length).toBe(38);
      // What is on no page is in the list.
      expect(paper.text).toContain('This is solid work in the field, Ines');
      const pdf = await openPdf(bytes, null);
      expect((await pdf.getOutline()).map(({ title }: { title: string }) => title)).toEqual([
        'Remarks by page',
        'Remarks by criterion',
      ]);
      await pdf.destroy();
    },
  );

  pageTest(
    'a pack holds what is chosen, in its order, and says what was left out',
    async ({ page, desk }) => {
      await signIn(page, desk);
      await page.goto(`${desk.address}/a/skarn-moss-report/decide`);
      await seeText(page, 'Remark 1 of 52');
      await page.keyboard.press('a');
      await seeText(page, '51 remarks left to decide');
      await page.goto(desk.address + TAKE);
      await seeText(page, 'A pack for a meeting');
      const wish = 'Is my reading of the drier wells right?';
      await page.type('textarea', wish);
      await until(page, () => document.body.textContent.includes('Saved'));
      await page.reload();
      await until(page, (text) => document.querySelector('textarea')?.value === text, wish);
      await clickRole(page, 'checkbox', 'Scores and points');
      await (await seeText(page, 'Names of people')).click();
      await until(
        page,
        () => document.querySelectorAll('[role="checkbox"][aria-checked="false"]').length >= 3,
      );
      const { bytes } = await saveBy(page, () => clickRole(page, 'button', 'Save the pack'));
      const { paper, marks } = await readMarkedPdf(bytes, null);
      const { text } = paper;
      const order = [wish, 'Tasks and plan', 'Rubric with its remarks', 'All remarks'].map((part) =>
        text.indexOf(part),
      );
      expect(order.every((at) => at >= 0)).toBe(true);
      expect(order).toEqual([...order].sort((x, y) => x - y));
      expect(text).toContain('Left out by choice: scores and points, the names of');
      expect(text).not.toContain('5 of 6');
      expect(marks.some(({ author }) => author.includes('Keld'))).toBe(false);
      expect(marks.some(({ author }) => author === 'instructor')).toBe(true);
      await page.reload();
      await until(
        page,
        () => document.querySelectorAll('[role="checkbox"][aria-checked="false"]').length >= 3,
      );
    },
  );

  pageTest(
    'a Word paper goes along too, and what a tutor wrote on the copy comes back',
    async ({ page, desk, expectFault }) => {
      expectFault(/401/);
      await openDropped(page, desk, 'same.docx', sample('same.docx'));
      const { pathname } = new URL(page.url());
      await page.goto(`${desk.address}${pathname.replace(/[/]read$/, '')}/take`);
      const { bytes } = await saveBy(page, () => clickRole(page, 'button', 'Save as PDF same.docx'));
      const { marks } = await readMarkedPdf(bytes, null);
      expect(marks.map(({ text }) => text)).toContain('Measured how often?');
      expect(marks).toHaveLength(7);
      await drop(page, ['tutored.pdf', sample('tutored.pdf')]);
      await takeIn(page, 1);
      await seeText(page, '3 remarks found');
      await page.goto(`${desk.address}${pathname.replace(/[/]read$/, '')}`);
      await seeText(page, 'of 10');
      await page.goto(`${desk.address}/shelf`);
      await seeText(page, 'Oriel Fane');
      // Taken out again, it goes with what was in it, and comes back with it.
      await clickRole(page, 'button', 'Take out tutored.pdf');
      await seeText(page, 'With it go 3 remarks.');
      await clickRole(page, 'button', 'Take out');
      await seeText(page, '“tutored.pdf” is out.');
      await until(page, () => !document.body.textContent.includes('Oriel Fane'));
      await (await page.waitForSelector('[data-sonner-toast] button::-p-text(Undo)'))?.click();
      await seeText(page, 'Oriel Fane');
    },
  );

  pageTest(
    'a marked picture goes along as a page, its boxes as squares',
    async ({ page, desk }) => {
      await arrive(page, desk);
      await page.goto(`${desk.address}/a/core-log/take`);
      await seeText(page, 'A pack for a meeting');
      const { bytes } = await saveBy(page, () => clickRole(page, 'button', 'Save as PDF Core SM-2.png'));
      const { marks } = await readMarkedPdf(bytes, null);
      expect(marks.length).toBe(12);
      expect(marks.every(({ kind }) => ['square', 'polygon', 'circle'].includes(kind))).toBe(true);
    },
    undefined,
    ['core-log'],
  );

  pageTest(
    'the pages are seen before, and lists are saved, on a phone too',
    async ({ page, desk }) => {
      await signIn(page, desk);
      await page.goto(desk.address + TAKE);
      await seeText(page, 'A pack for a meeting');
      const table = await saveBy(page, () =>
        clickRole(page, 'button', 'Save a copy Remarks as a table (CSV)'),
      );
      expect(new TextDecoder().decode(table.bytes).split('\r\n')[0]).toBe(
        'Number,Page,Words,Remark,Author,Written,Kind,Colour,Criterion,State,Answers,Points behind it',
      );
      await clickRole(page, 'button', 'See the pages');
      await page.waitForSelector('[role="dialog"] canvas[aria-label*="page 1"]', { timeout: 60_000 });
      await seeText(page, 'Page 1 of');
    },
    PHONE,
  );
});
