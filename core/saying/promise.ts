import type { PromisePlace } from '../model/promises.ts';
import { sentencesOf } from '../text/sentences.ts';

const FEEDBACK =
  '(?:notes?|comments?|remarks?|corrections?|annotations?|feedback|suggestions?|markings?|details)';
const DOCUMENT =
  '(?:file|document|paper|PDF|copy|version|margins?|draft|sheet|report|essay|pages?|text|post)';

/** Rows in the order they are tried; the first that fits a sentence tells. */
const ROWS: readonly (readonly [PromisePlace, RegExp])[] = [
  ['recording', /\b(?:listen to|hear) (?:the|my|this)\b/i],
  ['recording', /\b(?:audio|voice|spoken|recorded) (?:comments?|message|notes?|feedback|remarks?)\b/i],
  ['recording', /\b(?:on|in|see|hear|left you|made) (?:the|a|my|you a) (?:recording|audio)\b/i],
  [
    'class',
    /\b(?:talked|spoke|discussed|said|went through|go through|explain|raise|mentioned)\b.*\bin (?:class|the seminar|the lecture|person|office hours|the field|our meeting)\b/i,
  ],
  ['class', /\b(?:come and see|come to see|come by|talk to|drop in on|see) me\b/i],
  ['other', /\b(?:sent|send|write|wrote|mail(?:ed)?)\b.*\b(?:e-?mail|message|letter)\b/i],
  ['other', /\bI(?:'ve|’ve| have)? (?:e-?mailed|written to) you\b/i],
  [
    'criterion',
    /\b(?:[Ss]ee|[Ll]ook at|[Rr]efer to|[Cc]heck|[Rr]ead)\b.*\b(?:rubric|criteri(?:on|a)|comments? (?:under|on|beside) (?:the )?[A-Z“"])/,
  ],
  ['criterion', /\bthe rubric (?:shows|says|tells|explains|has)\b/i],
  ['overall', /\b(?:general|overall|final|closing|summary) (?:comments?|remarks?|words|notes?)\b/i],
  ['overall', /\b(?:in|see) (?:the|my) summary\b/i],
  ['paper', new RegExp(`\\bmy (?:\\w+ )?${FEEDBACK}\\b`, 'i')],
  [
    'paper',
    new RegExp(
      `\\b(?:see|check|look at|refer to|read|go through|more|rest|detailed|specific)\\b.*\\b${FEEDBACK}\\b`,
      'i',
    ),
  ],
  [
    'paper',
    new RegExp(
      `\\b${FEEDBACK}\\b.*\\b(?:in|on|inside|attached to) (?:the|your|this) (?:\\w+ )?${DOCUMENT}\\b`,
      'i',
    ),
  ],
  ['paper', /\b(?:in-?line|margin(?:al)?|handwritten) (?:comments?|notes?|remarks?)\b/i],
  ['paper', /\b(?:in|see) the margins?\b/i],
  [
    'paper',
    /\b(?:marked|annotated|corrected|attached|returned|marked-up) (?:\w+ )?(?:copy|version|file|document|paper|PDF)\b/i,
  ],
  ['paper', /\b(?:document|file|copy|paper) (?:that )?I (?:returned|attached|marked|sent back)\b/i],
  ['paper', /\bI(?:'ve|’ve| have)? (?:marked|circled|underlined|highlighted|struck)\b/i],
  [
    'paper',
    /\bthe (?:circled|highlighted|underlined|marked|yellow) (?:parts?|words?|passages?|lines?|bits?)\b/i,
  ],
  ['paper', /^(?:see|same as|as) (?:above|below|before|earlier)\b/i],
];

/** An outside source is not feedback, whatever it is called. */
const OUTSIDE = /\b(?:chapter|handout|guide|leaflet|library|website|course page|noticeboard|reading list)\b/i;
/** What is said of the student's own notes is no promise. */
const OWN = /\b(?:your|field) (?:own )?(?:notes?|comments?|remarks?)\b/i;

/** Signs of a promise in a part of a remark, each by a name. */
export function promiseSigns(text: string): string[] {
  const hits = ROWS.flatMap(([place, pattern], index) =>
    pattern.test(text) ? [`promise ${index}`, `promise ${place}`] : [],
  );
  return [
    ...hits,
    ...(OUTSIDE.test(text) ? ['outside source'] : []),
    ...(OWN.test(text) ? ['own notes'] : []),
  ];
}

/** The first sentence that points to feedback elsewhere, and where; null where none does. */
export function promiseIn(text: string): { readonly place: PromisePlace; readonly sentence: string } | null {
  for (const sentence of sentencesOf(text)) {
    if (OUTSIDE.test(sentence) || OWN.test(sentence)) continue;
    const row = ROWS.find(([, pattern]) => pattern.test(sentence));
    if (row !== undefined) return { place: row[0], sentence };
  }
  return null;
}
