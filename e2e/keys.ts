import type { Page } from 'puppeteer-core';

/** More steps than any place has on the way from one end of it to the other. */
const MOST_STEPS = 400;

/** The name that a screen reader says of what has the focus, and of what kind it is. */
function focused(page: Page): Promise<{ readonly role: string; readonly name: string }> {
  return page.accessibility.snapshot({ interestingOnly: false }).then((tree) => {
    type Node = NonNullable<typeof tree>;
    const find = (node: Node): Node | undefined =>
      (node.children ?? []).map(find).find((one) => one !== undefined) ??
      (node.focused === true && node.role !== 'RootWebArea' ? node : undefined);
    const found = tree === null ? undefined : find(tree);
    return { role: found?.role ?? '', name: found?.name ?? '' };
  });
}

/** Goes on with the Tab key until the focus is on what has this name; nothing else is used than the keyboard. */
export async function tabTo(page: Page, name: string | RegExp, role?: string): Promise<void> {
  const seen: string[] = [];
  for (let step = 0; step < MOST_STEPS; step++) {
    const here = await focused(page);
    const fits = typeof name === 'string' ? here.name === name : name.test(here.name);
    if (fits && (role === undefined || here.role === role)) return;
    seen.push(`${here.role} ${here.name}`);
    await page.keyboard.press('Tab');
  }
  throw new Error(
    `the keyboard does not lead to ${String(name)}; it led to ${[...new Set(seen)].join(' | ')}`,
  );
}

/** So often the focus may be lost between finding it and pressing: by a page that is drawn anew just then. */
const MOST_LOST = 3;

/** Goes to a button, a link or a choice with the keyboard, and presses it. */
export async function pressByKeys(
  page: Page,
  name: string | RegExp,
  key: 'Enter' | 'Space' = 'Enter',
): Promise<void> {
  for (let lost = 0; lost <= MOST_LOST; lost++) {
    await tabTo(page, name);
    await page.evaluate(() => {
      const told = globalThis as { keyCame?: boolean };
      told.keyCame = false;
      document.activeElement?.addEventListener('keydown', () => (told.keyCame = true), { once: true });
    });
    await page.keyboard.press(key);
    const came = await page
      .evaluate(() => (globalThis as { keyCame?: boolean }).keyCame !== false)
      // The press led to another page.
      .catch(() => true);
    if (came) return;
    console.warn(`the focus was lost before ${key} came to ${String(name)}`);
  }
  throw new Error(`${String(name)} loses the focus before it can be pressed`);
}
