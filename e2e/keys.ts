import type { CDPSession, Page } from 'puppeteer-core';

/** More steps than any place has on the way from one end of it to the other. */
const MOST_STEPS = 400;

/** The name that a screen reader says of what has the focus, and of what kind it is. */
async function focused(client: CDPSession): Promise<{ readonly role: string; readonly name: string }> {
  const { result } = await client.send('Runtime.evaluate', { expression: 'document.activeElement' });
  const { objectId } = result;
  if (objectId === undefined) return { role: '', name: '' };
  // Of this element alone: the tree of a whole page at every step is what takes the time.
  const { nodes } = await client.send('Accessibility.getPartialAXTree', { objectId, fetchRelatives: false });
  const said = (value: { value?: unknown } | undefined) =>
    typeof value?.value === 'string' ? value.value : '';
  const node = nodes.find(({ role }) => said(role) !== 'RootWebArea');
  return { role: said(node?.role), name: said(node?.name) };
}

/** Goes on with the Tab key until the focus is on what has this name; nothing else is used than the keyboard. */
export async function tabTo(page: Page, name: string | RegExp, role?: string): Promise<void> {
  const seen: string[] = [];
  const client = await page.createCDPSession();
  try {
    for (let step = 0; step < MOST_STEPS; step++) {
      const here = await focused(client);
      const fits = typeof name === 'string' ? here.name === name : name.test(here.name);
      if (fits && (role === undefined || here.role === role)) return;
      seen.push(`${here.role} ${here.name}`);
      await page.keyboard.press('Tab');
    }
  } finally {
    await client.detach();
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
    const held = await page.evaluate(() => {
      const told = globalThis as { keyCame?: boolean };
      told.keyCame = false;
      const found = document.activeElement;
      if (found === null || found === document.body) return false;
      found.addEventListener('keydown', () => (told.keyCame = true), { once: true });
      return true;
    });
    if (!held) continue;
    await page.keyboard.press(key);
    const came = await page
      .evaluate(() => (globalThis as { keyCame?: boolean }).keyCame !== false)
      // The press led to another page.
      .catch(() => true);
    if (came) return;
  }
  throw new Error(`${String(name)} loses the focus before it can be pressed`);
}
