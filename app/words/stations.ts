import type { Meaning, Reason, Way } from '#core/line/station-facts.ts';
import type { WorkKind } from '#core/model/work-kind.ts';

export const kinds: Record<WorkKind, string> = {
  paper: 'A paper: a text',
  files: 'Files: a drawing, photographs, a table, a recording',
  quiz: 'A quiz',
  posts: 'Posts to a discussion',
  items: 'An activity by items',
};

/** What a station is for, as its heading where there is nothing else. */
export const meanings: Record<Meaning, string> = {
  remarks: 'What was said of your work',
  decisions: 'What to do about each remark',
  tasks: 'What to do, and in which order',
  'study list': 'What to study before the next try',
  'items to do again': 'The items to do again',
  draft: 'The draft beside the remarks',
  'new files': 'The new file beside the old one',
  practice: 'Practise what was missed',
  post: 'A new post beside the thread',
  items: 'The items beside your old answers',
  'answers and text': 'A last look at the draft',
  'answers and files': 'A last look at the files',
  readiness: 'Are you ready for another try?',
  'answers and post': 'A last look at the post',
  'answers by item': 'A last look at the answers',
  'hand in': 'Handing in',
  'another try': 'Another try at the quiz',
  posting: 'Posting it',
  'answers to the desk': 'Handing in the answers',
};

export const reasons: Record<Reason, string> = {
  'nothing came back': 'Nothing has come back for this yet.',
  'remarks are on the draft stage': 'What was said was said of the draft stage, and is read there.',
  'nothing to decide': 'There is nothing to decide: no remark is here.',
  'it is done in the final': 'This was a draft stage. What was said of it is worked into the final.',
  'its final is gone':
    'The final that this draft leads to is not here, so it is worked on by itself until it is.',
  'no tasks': 'No tasks yet. Each remark that you decide to act on becomes one.',
  'no draft': 'Nothing is written or brought in yet.',
  'not open yet': 'It is not open yet. You can begin already; it is taken once it opens.',
  'it is being marked': 'It was sent and is being marked. You don’t have to do anything.',
  'the rest is to come': 'Part of the marking is here, and more is to come. Nothing is taken until then.',
  'no other attempt':
    'No other attempt is taken, so nothing has to be done. You may still do it for yourself.',
  missed: 'The time for this is over, and nothing was sent. If there is a reason, ask your instructor.',
  excused: 'You are excused: nothing has to be handed in.',
  'taken at the school':
    'Another try is taken where your school gives the quiz, not here. Its results are read here when you drop them in as a file (QTI).',
  'no course desk':
    'There is no course desk for this work. Save what goes, hand it in yourself, and keep a receipt of it here.',
};

const places: Record<Way['to'], string> = {
  read: 'Read',
  decide: 'Decide',
  plan: 'Plan',
  revise: 'Revise',
  check: 'Check',
  send: 'Send',
  page: 'the page of this assignment',
};

export const ways = {
  toThis: (to: Way['to']) => `Go to ${places[to]}`,
  toStage: (to: Way['to'], title: string) =>
    to === 'page' ? `Go to “${title}”` : `Go to ${places[to]} of “${title}”`,
};

export const inFinal = 'in the final';
