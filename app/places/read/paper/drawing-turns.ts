/** Drawing goes on by one page in each frame, the one nearest to the eye first: several at once hold up the screen. */

interface Turn {
  readonly element: Element;
  readonly proceed: () => void;
}

const waiting: Turn[] = [];
let givenInFrame = false;

function fromEye({ element }: Turn): number {
  const { top, bottom } = element.getBoundingClientRect();
  return Math.abs((top + bottom) / 2 - window.innerHeight / 2);
}

function give(): void {
  const [first] = waiting;
  const next = waiting.reduce((x, y) => (fromEye(y) < fromEye(x) ? y : x), first);
  waiting.splice(waiting.indexOf(next), 1);
  givenInFrame = true;
  requestAnimationFrame(() => {
    givenInFrame = false;
    if (waiting.length > 0) give();
  });
  next.proceed();
}

/** Lets the drawing of an element go on in the next frame in which it is its turn. */
export function takeTurn(element: Element, proceed: () => void): void {
  waiting.push({ element, proceed });
  if (!givenInFrame) give();
}
