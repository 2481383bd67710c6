import { instantOf, type Instant } from '#core/model/ids.ts';

/** Where the difference to the desk's clock is kept, so that it holds while the desk can't be reached. */
const OFFSET = 'juncture/clock';
/** The way to the desk takes time of its own; less than this is no difference of clocks. */
const LEAST_DIFFERENCE_MS = 2500;

/** The time as the desk's clock has it, which rules deadlines. */
export class DeskClock {
  private offsetMs = typeof localStorage === 'undefined' ? 0 : Number(localStorage.getItem(OFFSET) ?? 0);

  nowMs(): number {
    return Date.now() + this.offsetMs;
  }

  now(): Instant {
    return instantOf(this.nowMs());
  }

  setByDesk(deskNow: Instant): void {
    const offset = Date.parse(deskNow) - Date.now();
    this.offsetMs = Math.abs(offset) > LEAST_DIFFERENCE_MS ? offset : 0;
    localStorage.setItem(OFFSET, String(this.offsetMs));
  }
}
