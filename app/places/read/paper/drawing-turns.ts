/** Drawing goes on by one page in each frame, the one nearest to the eye first: several at once hold up the screen. */

interface Turn {
  readonly element: Element;
  readonly proceed: () => void;
}

function fromEye({ element }: Turn): number {
  const { top, bottom } = element.getBoundingClientRect();
  return Math.abs((top + bottom) / 2 - window.innerHeight / 2);
}

class DrawingTurns {
  private readonly waiting: Turn[] = [];
  private givenInFrame = false;

  /** Lets the drawing of an element go on in the next frame in which it is its turn. */
  take(element: Element, proceed: () => void): void {
    this.waiting.push({ element, proceed });
    if (!this.givenInFrame) this.give();
  }

  private give(): void {
    const { waiting } = this;
    const [first] = waiting;
    const next = waiting.reduce((x, y) => (fromEye(y) < fromEye(x) ? y : x), first);
    waiting.splice(waiting.indexOf(next), 1);
    this.givenInFrame = true;
    requestAnimationFrame(() => {
      this.givenInFrame = false;
      if (waiting.length > 0) this.give();
    });
    next.proceed();
  }
}

/** The browser has one row of frames. */
export const drawingTurns = new DrawingTurns();
