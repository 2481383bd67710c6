const ENDS = /(?<=[.!?…]["”’')]*)\s+(?=[\p{Lu}\p{N}"“‘'(])/u;
/** What ends in a full stop without ending a sentence. */
const SHORT = /(?:^|[\s(])(?:p|pp|cf|e\.g|i\.e|et al|ch|fig|vol|no|dr|prof|st|nov|dec|jan|feb|oct|s|m)\.$/i;

/** The sentences of a remark, in order; what follows an abbreviation goes on in the same one. */
export function sentencesOf(text: string): string[] {
  const sentences: string[] = [];
  for (const part of text.trim().split(ENDS)) {
    const before = sentences.at(-1);
    if (before !== undefined && SHORT.test(before)) sentences[sentences.length - 1] = `${before} ${part}`;
    else if (part !== '') sentences.push(part);
  }
  return sentences;
}
