/** The widths from which on there is another layout, in text sizes; the names are those of the style sheet. */
const FROM_REM = { sm: 40, md: 51, lg: 62 };
export type Width = keyof typeof FROM_REM;

/** Whether the window is so wide, at a text size in per cent. */
export function isAsWide(width: Width, textSize: number): boolean {
  return window.innerWidth >= (FROM_REM[width] * 16 * textSize) / 100;
}

/** Tells the style sheet which widths the window has. */
export function tellWidths(textSize: number): void {
  const widths = Object.keys(FROM_REM).filter((width) => isAsWide(width as Width, textSize));
  document.documentElement.dataset.widths = widths.join(' ');
}
