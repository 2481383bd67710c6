import { settled, signIn } from './harness.ts';
import { pageTest } from './page-test.ts';
const IDS = ['core-log', 'quiz-flow', 'policy-brief-draft', 'policy-brief', 'seminar-post-2', 'landscape-essay'];
pageTest('look', async ({ page, desk }) => {
  await signIn(page, desk);
  for (const id of IDS)
    for (const place of ['check', 'response']) {
      await page.goto(`${desk.address}/a/${id}/${place}`);
      await page.waitForSelector('main h2');
      await settled(page);
      await new Promise((r) => setTimeout(r, 1500));
      console.log(`== ${id} ${place}: ${(await page.$eval('main', (m) => (m as HTMLElement).innerText)).replaceAll('\n', ' | ').slice(100, 1300)}`);
      await page.screenshot({ path: `/tmp/look/k-${id}-${place}.png` });
    }
}, undefined, ['skarn-moss-report', ...IDS]);
