import type { Answer } from '#core/check/answered.ts';
import type { OutcomeKind } from '#core/anchors/outcome.ts';
import type { Contradiction } from '#core/line/assignment-state.ts';
import type { Channel } from '#core/model/channels.ts';
import type { PromisePlace } from '#core/model/promises.ts';
import type { ChangeKind, Decision, Stance } from '#core/model/work.ts';
import type { UnreadableReason } from '#formats/unreadable.ts';

/** Words for the kinds of things that the core tells apart. */

export const decisions: Record<Decision | 'carry', string> = {
  act: 'Act',
  ask: 'Ask',
  keep: 'Keep doing',
  decline: 'Decline',
  carry: 'Carry',
};

export const channels: Record<Channel, string> = {
  overall: 'Overall',
  criterion: 'Criteria',
  passage: 'In the paper',
  region: 'Regions',
  recording: 'Recordings',
  question: 'Questions',
  post: 'Posts',
  overlap: 'Overlap',
};

export const stances: Record<Stance, string> = {
  'must-fix': 'must-fix',
  fix: 'fix',
  polish: 'polish',
  praise: 'praise',
  advice: 'advice for next time',
  question: 'question to you',
  pointer: 'points elsewhere',
  note: 'plain note',
};

export const outcomes: Record<OutcomeKind, string> = {
  untouched: 'untouched',
  'added to': 'added to',
  reworded: 'reworded',
  moved: 'moved',
  split: 'split',
  joined: 'joined',
  gone: 'gone',
  unsure: 'unsure',
};

export const changeKinds: Record<ChangeKind, string> = {
  mechanical: 'a stroke',
  sentence: 'a sentence',
  paragraph: 'a paragraph',
  structure: 'the structure',
  research: 'new research',
};

export const unreadable: Record<UnreadableReason, (name: string, detail: string) => string> = {
  empty: (name) => `“${name}” is empty. Save it again where it came from, and drop that copy.`,
  'too large': (name) =>
    `“${name}” is larger than 300 MB. Save a smaller copy, for instance without pictures.`,
  'too many pages': (name, detail) =>
    `“${name}” has ${detail} pages; up to 2,000 are read. Split it and drop the parts.`,
  'not a PDF': (name) =>
    `“${name}” is not a PDF, whatever its name says. Save or print it as one, and drop that.`,
  'damaged PDF': (name) =>
    `“${name}” is damaged and can’t be read. Download or save it again, and drop that copy.`,
  'locked PDF': (name) =>
    `“${name}” is locked with a password. Type it here, or save a copy without one and drop that.`,
  'wrong password': (name) =>
    `That is not the password of “${name}”. Type it again, or save a copy without one.`,
  'not a Word file': (name) => `“${name}” is not a Word file (.docx). Save it as .docx and choose that.`,
  'damaged Word file': (name) =>
    `“${name}” is damaged and can’t be read. Save it again as .docx and choose that.`,
  'not an OpenDocument text': (name) =>
    `“${name}” is not an OpenDocument text (.odt). Save it as .odt or PDF and drop that.`,
  'damaged OpenDocument text': (name) =>
    `“${name}” is damaged and can’t be read. Save it again as .odt and drop that.`,
  'damaged remarks': (name) =>
    `“${name}” looks like a file of remarks, but is damaged. Export it again where it came from.`,
  'not a calendar': (name) =>
    `“${name}” is not a calendar (.ics). Export your calendar as .ics and choose that.`,
  'no remarks': (name) => `There are no remarks in “${name}”. Export it again where it came from.`,
  'damaged quiz': (name) =>
    `“${name}” looks like the results of a quiz, but is damaged. Download it again where it came from.`,
  'damaged posts': (name) =>
    `“${name}” looks like posts of a discussion, but is damaged. Download it again where it came from.`,
  'damaged picture': (name) =>
    `The picture “${name}” is damaged and can’t be shown. Save it again as PNG or JPEG.`,
  'HEIC picture': (name) =>
    `“${name}” is a HEIC picture, which browsers don’t show. Save it as JPEG or PNG and drop that.`,
  'unknown picture': (name) =>
    `“${name}” is a picture of a kind that browsers don’t show. Save it as PNG or JPEG and drop that.`,
  'unknown recording': (name) =>
    `“${name}” is a recording of a kind that browsers don’t play. Save it as MP3, M4A or WAV and drop that.`,
  'unknown quiz': (name) =>
    `“${name}” holds a quiz, but not your answers and what they got. Ask for its results (QTI assessmentResult) and drop those.`,
  slides: (name) =>
    `“${name}” holds slides, which are not read here. Save them with their notes and comments as PDF and drop that.`,
  'a table of figures': (name) =>
    `“${name}” is a spreadsheet. Scores out of it can be taken in under Standing as CSV; a marked sheet, saved as PDF.`,
  'unknown kind': (name) =>
    `“${name}” is of a kind that is not read here. Save or print it as PDF and drop that.`,
  'no page to place on': (name) =>
    `The remarks in “${name}” belong on the pages of a PDF. Drop that PDF together with it.`,
  'no rubric': (name) =>
    `There is no table of criteria in “${name}”. Choose a CASE file, a CSV, or a Word or OpenDocument text with one.`,
  'no scores': (name) =>
    `There are no assignments or scores in “${name}”. Choose a CSV with a row for each, or OneRoster files.`,
  'not a backup': (name) => `“${name}” is not a saved workspace. Choose a ZIP that Juncture wrote.`,
  'damaged backup': (name, detail) =>
    `“${name}” is damaged: ${detail || 'the archive'} is missing or changed. Nothing was read back; use another copy.`,
  'newer backup': (name) => `“${name}” was written by a newer Juncture. Bring this one up to date first.`,
  'no text': (name) =>
    `No text in “${name}”: its pages are pictures, as of a scan. A copy with its words in it can be compared.`,
  'damaged references': (name, detail) =>
    `“${name}” can’t be read as references (${detail}). Put that right there, or save it again as BibTeX or CSL-JSON.`,
  'no references': (name) =>
    `There are no references in “${name}”. Save them as BibTeX (.bib) or CSL-JSON (.json) and choose that.`,
  'archive too large': (name) =>
    `“${name}” expands to more than can be read safely. Nothing was taken from it.`,
  fault: (name, detail) =>
    `Juncture has a fault of its own with “${name}” (${detail}). The file may well be whole; nothing was taken from it.`,
};

export const promisePlaces: Record<PromisePlace, string> = {
  paper: 'in the paper',
  recording: 'in a recording',
  criterion: 'beside the criteria',
  overall: 'in overall words',
  class: 'in person',
  other: 'by mail or elsewhere',
};

export const contradictions: Record<Contradiction, (course: string) => string> = {
  'score without attempt': (desk) =>
    `A score is on record, but no attempt. Both are from ${desk}; ask there if you did hand something in.`,
  'excused but marked': (desk) =>
    `It is on record as excused, and as marked. Both are from ${desk}; an excused one doesn’t count.`,
  'marked before sent': (desk) =>
    `It is on record as marked before it was sent. Both times are from ${desk}.`,
};

export const unanswered: Record<Extract<Answer, { answered: false }>['because'], string> = {
  undecided: 'nothing decided yet',
  'not asked yet': 'to be asked, not asked yet',
  'no answer yet': 'no answer yet',
  'ticked without an answer': 'ticked, but nothing says what answers it',
};
