import type { Span } from '../text/span.ts';

/** A word that is spelt otherwise in Britain and in America. */
interface Variant {
  readonly side: 'British' | 'American';
  /** The same word on the other side. */
  readonly other: string;
  /** -ise and -ize are chosen apart from the rest: both are written in Britain. */
  readonly group: 'ise' | 'rest';
}

const OUR =
  'ard|arm|behavi|cand|clam|col|discol|demean|endeav|enam|fav|ferv|flav|glam|harb|hon|dishon|hum|lab|neighb|od|parl|ranc|rig|rum|sav|splend|succ|tum|val|vap|vig';
const RE = 'cent|theat|fib|lit|millilit|kilomet|centimet|millimet|calib|lust|spect|somb|meag|sabot';
const DOUBLED =
  'travel|cancel|model|label|level|fuel|signal|counsel|marvel|quarrel|tunnel|channel|panel|jewel|equal|dial|total';

/** British and American by pattern: what stands in Britain, what in America, and what both have around it. */
const RULES: readonly (readonly [
  british: RegExp,
  american: RegExp,
  toAmerican: string,
  toBritish: string,
])[] = [
  [
    new RegExp(`^(${OUR})our(.*)$`, 'u'),
    new RegExp(`^(${OUR})or(?!at|ist|ous|it)(.*)$`, 'u'),
    '$1or$2',
    '$1our$2',
  ],
  [new RegExp(`^(${RE})re(s|d|'s)?$`, 'u'), new RegExp(`^(${RE})er(s|ed|'s)?$`, 'u'), '$1er$2', '$1re$2'],
  [
    new RegExp(`^(${DOUBLED})l(ed|ing|er|ers)$`, 'u'),
    new RegExp(`^(${DOUBLED})(ed|ing|er|ers)$`, 'u'),
    '$1$2',
    '$1l$2',
  ],
  [/^(.*[al]|.*al)ys(e|ed|es|er|ers|ing)$/u, /^(.*[al]|.*al)yz(e|ed|es|er|ers|ing)$/u, '$1yz$2', '$1ys$2'],
  [
    /^(pre)?paed(iatr.*|agog.*)$|^(orthop)aed(.*)$/u,
    /^()ped(iatr.*|agog.*)$|^(orthop)ed(.*)$/u,
    '$1$3ped$2$4',
    '$1$3paed$2$4',
  ],
  [/^(an)aesth(.*)$/u, /^(an)esth(.*)$/u, '$1esth$2', '$1aesth$2'],
  [/^()haem(o.*|at.*)$/u, /^()hem(o.*|at.*)$/u, '$1hem$2', '$1haem$2'],
  [/^()grey(s|er|est|ish|ness|ed|ing)?$/u, /^()gray(s|er|est|ish|ness|ed|ing)?$/u, 'gray$2', 'grey$2'],
  [/^(pro)gramme(s)?$/u, /^(pro)gram(s)?$/u, '$1gram$2', '$1gramme$2'],
  [/^(cata|ana)logue(s|d)?$/u, /^(cata|ana)log(s|ed)?$/u, '$1log$2', '$1logue$2'],
  [/^(def|off|pret)ence(s)?$/u, /^(def|off|pret)ense(s)?$/u, '$1ense$2', '$1ence$2'],
  [/^()(m|sm)ould(s|y|ed|ing|er|ering)?$/u, /^()(m|sm)old(s|y|ed|ing|er|ering)?$/u, '$2old$3', '$2ould$3'],
  [/^()plough(s|ed|ing)?$/u, /^()plow(s|ed|ing)?$/u, 'plow$2', 'plough$2'],
  [/^()sceptic(al|ism|s|ally)?$/u, /^()skeptic(al|ism|s|ally)?$/u, 'skeptic$2', 'sceptic$2'],
  [/^()ageing$/u, /^()aging$/u, 'aging', 'ageing'],
  [/^(skil|wil|ful|enrol|fulfil|instal)(l?)ful(ly)?$/u, /^(skill|will)ful(ly)?$/u, '$1lful$3', '$1ful$2'],
];
const ISE = /^(.{3,})is(e|ed|es|er|ers|ing|ation|ations)$/u;
const IZE = /^(.{3,})iz(e|ed|es|er|ers|ing|ation|ations)$/u;

/** Which side a word is spelt on; null for one that both spell alike. */
export function variantOf(word: string, isKnown: (word: string) => boolean): Variant | null {
  for (const [british, american, toAmerican, toBritish] of RULES) {
    if (british.test(word))
      return { side: 'British', other: word.replace(british, toAmerican), group: 'rest' };
    if (american.test(word))
      return { side: 'American', other: word.replace(american, toBritish), group: 'rest' };
  }
  for (const [pattern, letter, side] of [
    [ISE, 'z', 'British'],
    [IZE, 's', 'American'],
  ] as const) {
    const found = pattern.exec(word);
    if (found === null) continue;
    const other = `${found[1]}i${letter}${found[2]}`;
    // "promise" and "capsize" have no other side.
    if (isKnown(other) && isKnown(word)) return { side, other, group: 'ise' };
  }
  return null;
}

/** Words spelt on the side that the text is mostly not on. */
export interface OtherSide extends Span {
  /** As most of the text would have it. */
  readonly other: string;
}

/**
 * Where a text that is spelt on one side of the sea is spelt on the other.
 * @param words in order
 */
export function otherSides(
  words: readonly (Span & { readonly word: string })[],
  isKnown: (word: string) => boolean,
): OtherSide[] {
  const known = new Map<string, Variant | null>();
  const variant = (word: string) => {
    const before = known.get(word);
    if (before !== undefined) return before;
    const found = variantOf(word, isKnown);
    known.set(word, found);
    return found;
  };
  const sided = words.flatMap((one) => {
    const found = variant(one.word);
    return found === null ? [] : [{ ...one, ...found }];
  });
  return (['rest', 'ise'] as const)
    .flatMap((group) => {
      const own = sided.filter((one) => one.group === group);
      const british = own.filter(({ side }) => side === 'British').length;
      const american = own.length - british;
      if (british === 0 || american === 0) return [];
      // Where both are as many, what came first is what the rest is held to.
      const main = british === american ? own[0].side : british > american ? 'British' : 'American';
      return own.filter(({ side }) => side !== main);
    })
    .sort((x, y) => x.from - y.from)
    .map(({ from, to, other }) => ({ from, to, other }));
}
