/** The script of the desk's plain quiz page: keeps what is typed, and tells how much time is left. The page works without it. */

/** So long nothing has to be typed before it is kept. */
const PAUSE_MS = 500;
const TICK_MS = 1000;
const MINUTE_MS = 60_000;
/** Minutes before the end at which the time left is told aloud. */
const TOLD_AT = new Set([10, 5, 1]);

function keepAnswers(form: HTMLFormElement): void {
  const told = form.querySelector('[data-kept]');
  let waiting: ReturnType<typeof setTimeout> | undefined;
  let going = new AbortController();
  const keep = async () => {
    clearTimeout(waiting);
    waiting = undefined;
    // The newest answer is the one that is kept, whatever an older request does.
    going.abort();
    going = new AbortController();
    const { signal } = going;
    const body = new URLSearchParams();
    for (const [name, value] of new FormData(form)) if (typeof value === 'string') body.append(name, value);
    const say = (sentence: string) => {
      if (told !== null) told.textContent = sentence;
    };
    try {
      const answer = await fetch(form.action, {
        method: 'POST',
        body,
        headers: { 'Desk-Keep': '1' },
        keepalive: true,
        signal,
      });
      say(answer.ok ? 'Your answer is kept.' : 'Time was over before this could be kept.');
    } catch (error) {
      if (signal.aborted) return;
      if (!(error instanceof TypeError)) throw error;
      say('The course desk doesn’t answer. Your answer is not kept yet; it is tried again.');
      waiting = setTimeout(() => void keep(), PAUSE_MS * 4);
    }
  };
  const seen = form.querySelector<HTMLInputElement>('input[name="seen"]');
  form.addEventListener('input', () => {
    // What was typed here counts, even where it is typed back to what stood before.
    if (seen !== null) seen.value = '';
    clearTimeout(waiting);
    waiting = setTimeout(() => void keep(), PAUSE_MS);
  });
  // A page that is closed or left in mid-word is kept as it stands; not every browser tells both.
  const leave = () => {
    if (waiting !== undefined) void keep();
  };
  document.addEventListener('visibilitychange', () => {
    if (document.visibilityState === 'hidden') leave();
  });
  window.addEventListener('pagehide', leave);
  form.addEventListener('submit', () => {
    clearTimeout(waiting);
    going.abort();
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
