import { many } from './many.ts';

export const frame = {
  placesLabel: 'Places',
  toAsk: (count: number) => `${count} to ask`,
  saved: 'Saved',
  saving: 'Saving …',
  failed: 'Not saved: the storage of this browser refused it',
  connection: {
    asking: 'asking the course desk',
    reached: 'desk reached',
    'not reached': 'desk not reached',
    'not understood': 'desk not understood',
    'signed out': 'signed out',
    none: 'files alone',
  },
  notReached: 'The course desk can’t be reached. Everything else works, and it catches up by itself.',
  notUnderstood:
    'The course desk answers, but not in a form that can be read here. Everything else works; it is asked again by itself.',
  unreadFacts: (count: number, kinds: string) =>
    `${many(count, 'thing', 'things')} that the course desk sent can’t be read here (${kinds}). It is kept and tried again; look at the school’s own pages meanwhile.`,
  unreadKind: (kind: string, problem: string) => `${kind || 'of an unknown kind'}: ${problem}`,
  signedOut: 'You are signed out of the course desk. What is here stays here.',
  signIn: 'Sign in',
  outdated: 'A newer Juncture is open in another tab. Load this page again to go on.',
  title: (unread: number, place: string) =>
    unread > 0 ? `(${unread}) ${place} · Juncture` : `${place} · Juncture`,
};

export const signIn = {
  title: 'Sign in at your course desk',
  lead: 'The address that npm start prints signs you in by itself. Or type your name and access code here.',
  student: 'Name at the desk',
  studentHint: 'for the demo: ines-tarrow',
  code: 'Access code',
  go: 'Sign in',
  notReached: 'The course desk can’t be reached. Is it running? You can work from files meanwhile.',
  alone: 'Work from files alone',
  aloneLead: 'No school service? Drop a marked paper and go through it here. Nothing leaves this computer.',
};

export const undo = {
  joined: 'joining with a saved workspace',
  fileRemoved: (name: string) => `taking out “${name}”`,
  setting: 'setting',
  undo: 'Undo',
  redo: 'Do it again',
  undone: (label: string) => `Undone: ${label}.`,
  redone: (label: string) => `Done again: ${label}.`,
  about: (label: string, remark: string) => `${label}, on “${remark}”`,
  nothingAgain: 'There is nothing to do again here.',
  nothing: 'There is nothing to undo here.',
  changedSince: 'That can’t be changed back any more: something later builds on it.',
  decided: (decision: string) => `decided “${decision}”`,
  decidedPart: (decision: string) => `decided “${decision}” for a part`,
  cut: 'parted a remark otherwise',
  markKey: 'changed the key',
  ruleReference: 'changed the rule references',
  ownTerm: 'changed your terms',
  decidedMany: (decision: string, count: number) =>
    `decided “${decision}” for ${many(count, 'remark', 'remarks')}`,
  parted: 'parted two remarks',
  linked: (count: number) => `criterion of ${many(count, 'a remark', 'remarks')}`,
  aimed: 'level aimed at',
  tickedAim: 'tick on a list',
  ifScore: '“if” score',
  course: (title: string) => `course “${title}”`,
  assignment: (title: string) => `assignment “${title}”`,
  scored: 'score put in',
  rubric: 'rubric',
  imported: 'scores taken in',
  promised: 'what was promised',
  proposedQuery: 'a proposed question',
  outsideAttempt: 'attempt handed in elsewhere',
  seenScore: 'changed score seen',
  queryRemoved: 'question taken off the list',
  carried: 'carry mark',
  noted: 'note',
  elsewhere: 'other places of a remark',
  answered: 'answer',
  writtenOn: 'going on to write here',
  wentBack: 'going back to a version',
  versionNamed: 'name of a version',
  versionKept: 'version kept',
  answerTaken: 'part of an answer taken away',
  itemAnswered: 'answer to an item',
  postPlaced: 'place of the post',
  filesAdded: (count: number) => (count === 1 ? 'new file' : `${count} new files`),
  fileTakenOut: 'file taken out',
  filesOrdered: 'order of files',
  pictureEdited: 'turned or cut picture',
  filesJoined: (count: number) => `${count} pictures joined`,
  noteToInstructor: 'note to your instructor',
  replied: 'reply',
  stance: 'what it says',
  markedRead: 'marked as read',
  markedUnread: 'marked as not read',
  markedAllRead: 'all marked as read',
  worded: 'wording of a question',
  asked: 'asked mark',
  answerToQuery: 'answer to a question',
  ticked: 'task ticked',
  unticked: 'task not ticked any more',
  renamed: 'wording of a task',
  minutes: 'minutes of a task',
  kind: 'kind of change',
  ordered: 'order of tasks',
  who: 'who does it',
  pinned: 'task in or out of the plan',
  needs: 'what a task needs first',
  steps: 'steps of a task',
  taskAdded: 'own task',
  taskDropped: 'task taken away',
  tasksJoined: (count: number) => `${many(count, 'task', 'tasks')} joined`,
  taskSplit: 'task split',
  blockMoved: 'block moved',
  blockFreed: 'block placed anew',
  calendarIn: (name: string) => `busy times of “${name}”`,
  calendarOut: (name: string) => `busy times of “${name}” taken away`,
  proposed: 'proposed order',
  broughtIn: 'Word file brought in',
  takenIn: (title: string) => `“${title}” taken in`,
  moved: (name: string) => `“${name}” moved`,
  roleOf: (name: string) => `what “${name}” is`,
  person: (name: string) => `who ${name} is`,
  placed: 'remark placed',
};

export const notice = {
  marked: (who: string, title: string) => `${who} has marked “${title}”.`,
  look: 'Look',
  changed: (who: string, title: string) => `${who} has changed the marking of “${title}”.`,
  wentWrong: 'Something went wrong here.',
  wentWrongLead:
    'What was saved is safe. Load the page again; if it happens once more, save the workspace from the Shelf.',
  reload: 'Load again',
};

export const name = 'Juncture';

/** What the places are called. */
export const places = {
  arrivals: 'Arrivals',
  standing: 'Standing',
  week: 'Week',
  asks: 'To ask',
  shelf: 'Shelf',
  settings: 'Settings',
  marks: 'Marks and terms',
};

export const skip = 'Skip to the content';

/** The page of a form. */
export const keptForm = {
  keep: 'Keep',
  leave: 'Leave it',
  back: 'What you had typed here is back.',
};
