import type { Page } from 'puppeteer-core';
import { openStation, seeText, until, type Desk } from './harness.ts';

/** Going down the line as a student does, from Arrivals on, with a reload in the middle of each step. */

/** Waits until everything that was done is in the browser's storage. */
export async function saved(page: Page): Promise<void> {
  await until(
    page,
    () => document.querySelector('header [role="status"]')?.textContent.startsWith('Saved') === true,
  );
}

/** Opens a station through the line, and loads it again. */
export async function step(page: Page, station: string): Promise<void> {
  await openStation(page, station);
  await until(page, (end) => location.pathname.endsWith(`/${end}`), station.toLowerCase());
  await page.reload();
  await page.waitForSelector('nav[aria-label="The line of this assignment"]');
}

/** Opens Arrivals, loads it again once it shows this assignment, and waits until it stands still. */
export async function toArrivals(page: Page, desk: Desk, title: string): Promise<void> {
  await page.goto(desk.address);
  await seeText(page, title);
  await page.reload();
  await seeText(page, title);
  await seeText(page, 'desk reached');
}

/** Opens an assignment from Arrivals by its title, and reads on to the station where it is decided. */
export async function fromArrivals(page: Page, desk: Desk, id: string, title: string): Promise<void> {
  await toArrivals(page, desk, title);
  const link = await page.waitForSelector(`main a[href^="/a/${id}"]`);
  await link?.click();
  await until(page, (path) => location.pathname.startsWith(path), `/a/${id}`);
  await step(page, 'Read');
  await step(page, 'Decide');
}

/** Decides to act on so many remarks at Decide, one after the other, by keyboard. */
export async function actOn(page: Page, count: number): Promise<void> {
  for (let n = 1; n <= count; n++) {
    await page.waitForSelector('::-p-aria([name="Act"][role="button"])');
    await page.keyboard.press('a');
    await until(page, (wanted) => document.body.textContent.includes(wanted), `${n} of `);
    await saved(page);
    await page.keyboard.press('.');
  }
}
