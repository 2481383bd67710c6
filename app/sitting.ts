/** The script of the desk's plain quiz page: keeps what is typed, and tells how much time is left. The page works without it. */

/** After so long it is tried again where the desk doesn't answer. */
const AGAIN_MS = 2000;
const TICK_MS = 1000;
const MINUTE_MS = 60_000;
/** Minutes before the end at which the time left is told aloud. */
const TOLD_AT = new Set([10, 5, 1]);

function keepAnswers(form: HTMLFormElement): void {
  const told = form.querySelector('[data-kept]');
  const say = (sentence: string) => {
    if (told !== null) told.textContent = sentence;
  };
  const answers = () => {
    const body = new URLSearchParams();
    for (const [name, value] of new FormData(form)) if (typeof value === 'string') body.append(name, value);
    return body;
  };
  /** What the desk has. */
  let kept = answers().toString();
  let isGoing = false;
  let isOver = false;
  let going = new AbortController();
  // What is typed goes at once, and what was typed meanwhile after it: a page that is closed may get nothing out any more.
  const keep = async (): Promise<void> => {
    const body = answers();
    if (isGoing || isOver || body.toString() === kept) return;
    isGoing = true;
    going = new AbortController();
    const { signal } = going;
    try {
      const answer = await fetch(form.action, {
        method: 'POST',
        body,
        headers: { 'Desk-Keep': '1' },
        keepalive: true,
        signal,
      });
      isOver = !answer.ok;
      if (answer.ok) kept = body.toString();
      say(answer.ok ? 'Your answer is kept.' : 'Time was over before this could be kept.');
    } catch (error) {
      if (signal.aborted) return;
      if (!(error instanceof TypeError)) throw error;
      say('The course desk doesn’t answer. Your answer is not kept yet; it is tried again.');
      await new Promise((resolve) => setTimeout(resolve, AGAIN_MS));
    } finally {
      isGoing = false;
    }
    await keep();
  };
  const seen = form.querySelector<HTMLInputElement>('input[name="seen"]');
  form.addEventListener('input', () => {
    // What was typed here counts, even where it is typed back to what stood before.
    if (seen !== null) seen.value = '';
    void keep();
  });
  // A page that is closed or left in mid-word is kept as it stands; not every browser tells both.
  const leave = () => {
    const body = answers();
    if (isOver || body.toString() === kept) return;
    body.append('desk-keep', '1');
    navigator.sendBeacon(form.action, body);
  };
  document.addEventListener('visibilitychange', () => {
    if (document.visibilityState === 'hidden') leave();
  });
  window.addEventListener('pagehide', leave);
  form.addEventListener('submit', () => {
    // The form itself takes everything along, and nothing older may come after it.
    isOver = true;
    going.abort();
  });
  window.addEventListener('pageshow', ({ persisted }) => {
    if (persisted) isOver = false;
  });
}

function tellTime(place: HTMLElement): void {
  // The desk's clock counts, not the one of this machine.
  const ahead = Date.parse(place.dataset.now ?? '') - Date.now();
  const ends = Date.parse(place.dataset.ends ?? '') - ahead;
  const aloud = place.querySelector('[data-left]');
  let last: number | null = null;
  const tick = () => {
    const left = Math.ceil((ends - Date.now()) / MINUTE_MS);
    if (ends <= Date.now()) location.assign(place.dataset.over ?? location.href);
    else if (aloud !== null && left !== last && (last === null || TOLD_AT.has(left) || left % 5 === 0)) {
      aloud.textContent = ` ${left === 1 ? 'One minute is' : `${left} minutes are`} left.`;
      last = left;
    }
  };
  tick();
  setInterval(tick, TICK_MS);
}

for (const form of document.querySelectorAll<HTMLFormElement>('form[data-keep]')) keepAnswers(form);
for (const place of document.querySelectorAll<HTMLElement>('[data-ends]')) tellTime(place);
