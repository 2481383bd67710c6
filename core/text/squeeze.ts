const WHITE_SPACE = /\s/;

/** A text without its white space, and for each UTF-16 unit left where it stood. */
export interface Squeezed {
  readonly text: string;
  readonly at: readonly number[];
}

/** Sets a text's white space aside, in which two forms of one text differ most. */
export function squeeze(text: string): Squeezed {
  const at: number[] = [];
  const kept: string[] = [];
  for (let i = 0; i < text.length; i++)
    if (!WHITE_SPACE.test(text[i])) {
      kept.push(text[i]);
      at.push(i);
    }
  return { text: kept.join(''), at };
}
