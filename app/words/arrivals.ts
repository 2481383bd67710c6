import { many } from './many.ts';

export const arrivals = {
  littleTime: '20 minutes left: what first?',
  title: 'Came back',
  lead: (assignments: number, remarks: number) =>
    assignments === 0
      ? 'Everything that came back has been read.'
      : `${many(assignments, 'assignment', 'assignments')} with ${many(remarks, 'remark', 'remarks')} not read yet.`,
  asking: 'Asking the course desk what came back …',
  empty:
    'Nothing has come back yet. What your school returns appears here by itself; a marked paper can be dropped anywhere on this page.',
  emptyAlone:
    'Nothing here yet. Drop a marked paper anywhere on this page, or choose one, and it becomes an assignment of its own.',
  read: 'Read',
  open: 'Open',
  newHere: 'new',
  newSince: (count: number) =>
    `${many(count, 'assignment has', 'assignments have')} come back since your last visit.`,
  arrived: (count: number) => `${many(count, 'assignment has', 'assignments have')} come back just now.`,
  showNew: 'Show',
  markRead: 'Mark as read',
  goneThrough: 'Gone through',
  pastTerm: (term: string, count: number) => `${term}: ${many(count, 'assignment', 'assignments')}`,
  pastTermUnread: (count: number) => `${count} not read`,
  gap: (said: string, place: string) => `“${said}”: nothing came ${place}`,
  changed: (count: number) => `${many(count, 'remark', 'remarks')} changed after return`,
  scoreChanged: (before: string, after: string) => `Marked with ${after} now, with ${before} before`,
  countsLess: (off: string, counts: string) => `Less ${off} for being late, it counts ${counts}.`,
  seen: 'Seen',
  partMarked: 'part marked, more is to come',
  soFar: 'so far',
  draftStage: 'draft stage',
  nextUnread: 'Next not read',
  contradiction: 'two records that don’t fit',
  nothingToDo: 'Nothing to do',
  noneIdle: 'Nothing here.',
  allRead: (count: number) =>
    count === 0 ? 'no remarks on it' : count === 1 ? 'the 1 remark read' : `all ${count} remarks read`,
  weight: (soFar: string | null, whole: string) =>
    soFar === null || soFar === whole
      ? `${whole} % of the course grade`
      : `${soFar} % of the grade so far, ${whole} % of the whole`,
  finished: 'finished, nothing to hand in',
  attempt: (number: number, of: number) => `attempt ${number} of ${of}`,
  noCourse: 'not in a course yet',
  openAgain: 'Open for another attempt',
  couldReach: (reach: string, possible: string, score: string) =>
    `up to ${reach} of ${possible} points, from ${score}`,
  attemptsLeft: (count: number) => `${many(count, 'attempt', 'attempts')} left`,
  couldMove: (gain: string, now: string, most: string) =>
    `the course grade up to ${most} %, from ${now} % (+${gain})`,
  nothingToWin: 'Another attempt can win no more points.',
  waiting: 'Waiting to be marked',
  sentOn: (when: string) => `sent ${when}`,
  sentAgain: (when: string) => `sent again ${when}; the first score counts until then`,
  waitingToGo: 'waiting to go: the desk can’t be reached',
  sentPart: (when: string) => `sent ${when}; part of it is marked`,
  dueNext: 'Due next',
  due: (when: string) => `due ${when}, nothing sent`,
  dueExtended: (when: string, own: string) => `due ${when} for others, ${own} for you; nothing sent`,
  dueDraft: (when: string) => `due ${when}, draft begun`,
  late: (closes: string) => `taken late until ${closes}`,
  adviceOnDraft: (count: number) => `${many(count, 'remark', 'remarks')} on its draft stage`,
  opens: (when: string) => `opens ${when}`,
  carriedOn: (count: number) => `${count} carried on`,
  carried: (count: number) =>
    `Keep in mind: ${many(count, 'carried remark', 'carried remarks')} from this course`,
  drop: 'Drop what came back anywhere: PDF, Word, OpenDocument, pictures, recordings',
  choose: 'or choose files',
  noneOpen: 'Nothing is open for another attempt.',
  noneWaiting: 'Nothing is waiting.',
  noneDue: 'Nothing is due.',
};

export const tally = {
  notRead: (count: number, of: number) => (count === of ? `${count} not read` : `${count} of ${of} not read`),
  read: (count: number) => `${count} read`,
  decided: (count: number, of: number) => (count === of ? 'all decided' : `${count} decided`),
  announced: (count: number) => `${count} more announced, file not read yet`,
  label: 'What came back, by channel',
};
