import type { PromisePlace } from '../model/promises.ts';
import { sentencesOf } from '../text/sentences.ts';

const FEEDBACK =
  '(?:notes?|comments?|remarks?|corrections?|annotations?|feedback|suggestions?|markings?|details)';
const DOCUMENT =
  '(?:file|document|paper|PDF|copy|version|margins?|draft|sheet|report|essay|pages?|text|post)';

/** Who says that more is elsewhere: the marker, of what the marker did. */
const MARKER = "\\bI(?:['’]ve|['’]m| have| am|['’]ll| will|['’]d)?";
const MEETING =
  "(?:class|the seminar|the lecture|person|(?:my |the )?office hours?|the field|our meeting|the tutorial|the workshop|the webinar|supervision|training|the studio|the lab|the bench|\\w+day(?:['’]s (?:class|session|lecture|seminar|meeting))?)";

/** Rows in the order they are tried; the first that fits a sentence tells. */
const ROWS: readonly (readonly [PromisePlace, RegExp])[] = [
  [
    'recording',
    /\b(?:listen to|hear|watch|play) (?:my|me\b|what I|the (?:recording|clip|file|audio|video|message|comments?|attached|tape|screencast))/i,
  ],
  [
    'recording',
    /\b(?:audio|voice|spoken|recorded|video) (?:comments?|messages?|notes?|feedback|remarks?|memo)\b/i,
  ],
  [
    'recording',
    /\b(?:on|in|see|left you|made) (?:the|a|my|you a) (?:recording|audio|screencast|clip|voice message)\b/i,
  ],
  ['recording', new RegExp(`${MARKER} (?:\\w+ )?(?:recorded|filmed) (?:my|some|a|it|what|myself)\\b`, 'i')],
  [
    'recording',
    /\b(?:recording|video|clip|screencast)\b.*\b(?:in which I|where I|goes through|talks? you through|covers|has it all)\b/i,
  ],
  [
    'class',
    new RegExp(
      `\\b(?:talked|spoke|discussed|said|went (?:through|over)|go (?:through|over)|explain(?:ed)?|raised?|mentioned|covered|showed|did this)\\b.*\\b(?:in|at|on|during|after) ${MEETING}\\b`,
      'i',
    ),
  ],
  [
    'class',
    /\b(?:let['’]s|shall we|we (?:can|could|should|will|might)|we['’]ll|happy to|(?:if you['’]d )?like to|prefer to|rather)(?: \w+)? (?:talk|discuss|meet|sit down|conference|pair|speak|(?:look at|go over|go through|take up|discuss) (?:this|it|that))\b/i,
  ],
  [
    'class',
    /\b(?:come and see|come to see|come by|come to|talk to|drop in on|see|catch|stop|ask) me\b(?=.*\b(?:about|in|at|after|before|on|if|when)\b|[.!]?$)/i,
  ],
  ['class', /\b(?:drop|pop|come) (?:by|in|round)\b|\bgive me a (?:ring|call)\b|\bmy office hours?\b/i],
  [
    'class',
    new RegExp(
      `${MARKER} (?:show|tell|explain|go through|do) (?:you |this |it )+.*\\b(?:in|at|on|when|after) (?:the |my |our )?(?:\\w+day|class|bench|board|floor|studio|next)\\b`,
      'i',
    ),
  ],
  [
    'other',
    /\b(?:I|we)(?:['’]ve|['’]m|['’]ll| have| am| will)?(?: also| just)? (?:sent|send|sending|wrote|written|write|mailed|emailed)\b.*\b(?:to you|you|e-?mail|message|letter|length)\b/i,
  ],
  [
    'other',
    /\b(?:check|look in|see) your (?:e-?mail|inbox|mail|messages|tray|folder)\b|\bby (?:e-?mail|mail|post)\b/i,
  ],
  ['other', /\b(?:post|thread|answer|reply) (?:on|in) the forum\b|\bin the forum\b/i],
  [
    'criterion',
    /\b(?:[Ss]ee|[Ll]ook at|[Rr]efer to|[Cc]heck|[Rr]ead|[Ee]xplain(?:ed)?|[Ss]aid)\b.*\b(?:rubric|criteri(?:on|a)|(?:comments? |wrote )?(?:under|beside|next to) (?:the )?[A-Z“"])/,
  ],
  [
    'criterion',
    /\b(?:rubric|grid|criteria|mark scheme|descriptors?|matrix|checklist|level descriptions?)\b.*\b(?:shows?|says?|tells?|explains?|has|where|why|rest)\b/i,
  ],
  [
    'overall',
    /\b(?:general|overall|final|closing|summary) (?:comments?|remarks?|words|notes?|impression)\b/i,
  ],
  ['overall', /\b(?:in|see) (?:the|my) summary\b|\bcover note\b/i],
  [
    'overall',
    /\b(?:I|my|rest|more|paragraph|summ(?:ed|ary|ing)|note|thoughts?)\b.*\b(?:at|on|to) the (?:end|foot|bottom|last page|top) ?(?:of|\b)(?! of (?:the|page) (?:first|second|third|paragraph))/i,
  ],
  [
    'paper',
    new RegExp(
      `\\b(?:see|check|look at|read|follow|go through|work through|find|open|in|under|with|through|of) my (?:\\w+ )?${FEEDBACK}\\b|\\bmy (?:\\w+ )?${FEEDBACK} (?:in|on|inside|beside|next to|throughout|attached|are (?:in|on|beside|next to|all over))\\b`,
      'i',
    ),
  ],
  [
    'paper',
    new RegExp(
      `\\b(?:see|check|look at|refer to|read|go through|work through|open)\\b.*\\b(?:the|these|those|my|all|other|following) (?:\\w+ )?${FEEDBACK}\\b`,
      'i',
    ),
  ],
  [
    'paper',
    new RegExp(
      `\\b(?:more|rest|detailed|specific|further|other) (?:of (?:my|the) )?(?:\\w+ )?${FEEDBACK}\\b`,
      'i',
    ),
  ],
  [
    'paper',
    new RegExp(
      `\\b${FEEDBACK}\\b.*\\b(?:in|on|inside|attached to|beside|next to|throughout) (?:the|your|this) (?:\\w+ )?${DOCUMENT}\\b`,
      'i',
    ),
  ],
  [
    'paper',
    /\b(?:in-?line|margin(?:al)?|handwritten|bubble) (?:comments?|notes?|remarks?)\b|\btracked changes\b|\b(?:is|are|rest) inline\b/i,
  ],
  ['paper', /\b(?:in|see) the margins?(?: of your)?\b|\bbetween your lines\b/i],
  [
    'paper',
    /\b(?:marked|annotated|corrected|attached|returned|marked-up|scanned) (?:\w+ )?(?:copy|version|file|document|paper|PDF|scan)\b/i,
  ],
  [
    'paper',
    /\b(?:document|file|copy|paper) (?:that )?I(?:['’]ve)? (?:returned|attached|marked|sent back)\b/i,
  ],
  [
    'paper',
    new RegExp(
      `${MARKER} (?:circled|underlined|highlighted|struck|starred|ticked|commented (?:as|on|in|in detail))\\b`,
      'i',
    ),
  ],
  [
    'paper',
    new RegExp(
      `${MARKER} marked (?!(?:it|this|these|those|them|all|you|yours?|blind|out|forty|\\d+)\\b)|\\b(?:which|that|where|as) I(?:['’]ve| have)? marked\\b`,
      'i',
    ),
  ],
  [
    'paper',
    new RegExp(
      `${MARKER}(?: also| just)? (?:put|written|wrote|left|drawn|drew|made|added|stuck|scribbled)\\b.*\\b(?:margins?|pencil|in red|in green|in yellow|on your (?:\\w+ )?(?:copy|document|draft|file|drawing|typescript|version|text|plan|page)|in your (?:copy|document|draft|file|text))\\b`,
      'i',
    ),
  ],
  [
    'paper',
    /\bthe (?:circled|highlighted|underlined|marked|yellow) (?:parts?|words?|passages?|lines?|bits?)\b/i,
  ],
  ['paper', /^see (?:above|below|before|earlier)\b/i],
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
