/** Kinds of thing that a remark can ask for and a change can bring, whatever its words. */
interface Kind {
  readonly asked: RegExp;
  readonly given: RegExp;
}

const MONTH =
  'january|february|march|april|may|june|july|august|september|october|november|december|monday|tuesday|wednesday|thursday|friday|saturday|sunday';

const KINDS: readonly Kind[] = [
  {
    asked:
      /\b(?:when|dates?|which (?:days?|weeks?|months?|years?)|what (?:time|day|year)|how long|years?)\b/i,
    given: new RegExp(`\\b(?:${MONTH}|1[5-9]\\d\\d|20\\d\\d|o'clock|past|weeks?|days?)\\b`, 'i'),
  },
  {
    asked:
      /\b(?:how (?:many|much|far|large|often)|figures?|numbers?|measure\w*|per ?cent|values?|range|units?|counts?|count it|quantif\w*|amount)\b/i,
    given:
      /\d|\b(?:one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|twenty|thirty|forty|fifty|hundred|thousand)\b/i,
  },
  {
    asked:
      /\b(?:sources?|cit(?:e|es|ed|ation|ations)|references?|evidence|whose|who|by whom|names?|named|authors?|publisher|clause|where (?:is|does|do)\b.*\bfrom|says who)\b/i,
    given:
      /\(\D{0,60}(?:1[5-9]|20)\d\d|\p{Lu}\p{Ll}+ \((?:1[5-9]|20)\d\d|\b(?:clause|section|article|chapter|pp?\.|minutes|survey|counted|asked|told)\b|\s\p{Lu}\p{Ll}+/u,
  },
  {
    asked: /\b(?:why|reasons?|because|how do you know|justif\w*|explain\w*)\b/i,
    given: /\b(?:because|since|so that|as|for|therefore|due to|owing to|reason)\b/i,
  },
  {
    asked: /\b(?:table|list)\b/i,
    given: /\b(?:table|in this order|respectively|list)\b|(?:[^,]+,){3}/i,
  },
  {
    asked: /\b(?:define|definition|what is|mean(?:s|ing)?|term)\b/i,
    given: /\b(?:that is|means?|is the|are the|called|defined)\b/i,
  },
];

/** The kinds of thing that a remark asks for, a bit for each. */
export function askedKinds(remark: string): number {
  return KINDS.reduce((bits, { asked }, index) => bits | (Number(asked.test(remark)) << index), 0);
}

/** The kinds of thing that new words bring, a bit for each. */
export function broughtKinds(words: string): number {
  return KINDS.reduce((bits, { given }, index) => bits | (Number(given.test(words)) << index), 0);
}

/** How many kinds two have in common. */
export function kindsInBoth(asked: number, brought: number): number {
  let count = 0;
  for (let both = asked & brought; both !== 0; both &= both - 1) count++;
  return count;
}
