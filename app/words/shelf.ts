import { many } from './many.ts';

export const shelf = {
  title: 'Shelf',
  lead: 'Everything is in this browser, on this computer. Save it from time to time.',
  keep: 'Keep it safe',
  save: 'Save everything as a ZIP',
  saving: (done: number) => `Putting it together … ${done} %`,
  saved: (name: string, size: string) => `Saved as ${name}, ${size}.`,
  lastSaved: (days: number) =>
    days === 0
      ? 'Last saved today.'
      : `Last saved ${many(days, 'day', 'days')} ago${days >= 14 ? ': much may have been decided since. Save it again.' : '.'}`,
  neverSaved: 'Not saved yet. A ZIP on another disk outlives this browser.',
  shown: (by: string) =>
    by === ''
      ? 'You are looking at what was given to you. Nothing that you do here is kept.'
      : `You are looking at what ${by} gave you. Nothing that you do here is kept.`,
  back: 'Back to your own',
  remindNever: 'What you decided is in this browser alone. A copy on another disk is made in a minute.',
  remindOld: (days: number) => `The last copy of your work is ${many(days, 'day', 'days')} old.`,
  toShelf: 'To the shelf',
  handOver:
    'To go on at another device, save it here, and read it in there: what was done in both places is joined.',
  read: 'Read a ZIP in',
  readTitle: (by: string) => (by === '' ? 'What is in the ZIP' : `What is in the ZIP of ${by}`),
  readLead: (when: string, remarks: number) =>
    `It was saved ${when} and holds ${many(remarks, 'remark', 'remarks')}.`,
  join: 'Join with what is here',
  joinLead: (merge: { added: number; newer: number; joined: number; gone: number; versions: number }) => {
    const parts = [
      ...(merge.added > 0 ? [`${many(merge.added, 'record', 'records')} come in`] : []),
      ...(merge.newer > 0 ? [`${merge.newer} are newer there`] : []),
      ...(merge.joined > 0 ? [`${merge.joined} are made of both`] : []),
      ...(merge.gone > 0 ? [`${merge.gone} were taken out there`] : []),
      ...(merge.versions > 0
        ? [
            `${many(merge.versions, 'text', 'texts')} of a draft ${merge.versions === 1 ? 'stays' : 'stay'} as a version`,
          ]
        : []),
    ];
    return parts.length === 0
      ? 'Nothing in it is missing here.'
      : `${parts.join(', ')}. Where both decided, the newer holds. It can be taken back.`;
  },
  replace: 'Replace everything here',
  replaceLead: 'What is in this workspace now goes. It can’t be taken back.',
  look: 'Only look at it',
  lookLead: 'Your own stays as it is, and nothing that you do there is kept.',
  cancel: 'Leave it as it is',
  restored: 'The workspace is as it was saved.',
  joined: 'Both are one now.',
  undo: 'Undo',
  checking: 'Checking the ZIP …',
  used: (used: string, of: string) => `${used} used; this browser gives up to ${of}.`,
  keptHere: 'The browser keeps it until you delete it.',
  notKept: 'The browser may clear it when the disk is full.',
  askToKeep: 'Ask it to keep everything',
  askedInVain: 'The browser doesn’t promise it yet. Save everything as a ZIP now and then.',
  files: 'Files',
  noFiles: 'No files yet.',
  name: 'Name',
  origin: 'Where from',
  size: 'Size',
  came: 'Since',
  get: 'Save a copy',
  origins: { desk: 'course desk', dropped: 'dropped in', written: 'written here' },
  usedIn: (title: string) => `in ${title}`,
  remove: 'Take out',
  removeTitle: (name: string) => `Take “${name}” out?`,
  removeLead: (goes: { files: number; remarks: number; judged: number; tasks: number; queries: number }) => {
    const parts = [
      ...(goes.files > 1 ? [many(goes.files - 1, 'other file about it', 'other files about it')] : []),
      ...(goes.remarks > 0 ? [many(goes.remarks, 'remark', 'remarks')] : []),
      ...(goes.judged > 0 ? [`what you decided about ${goes.judged} of them`] : []),
      ...(goes.tasks > 0 ? [many(goes.tasks, 'task', 'tasks')] : []),
      ...(goes.queries > 0 ? [many(goes.queries, 'question', 'questions')] : []),
    ];
    return parts.length === 0
      ? 'Nothing else hangs on it. It can be taken back.'
      : `With it go ${parts.join(', ')}. It can be taken back.`;
  },
  removed: (name: string) => `“${name}” is out.`,
  hash: (hash: string) => `SHA-256 ${hash.slice(0, 12)} …`,
  correct: 'Put right',
  correctTitle: (name: string) => `Put “${name}” right`,
  correctLead: 'Its remarks and what you decided about them go along.',
  belongs: 'Belongs to',
  is: 'Is',
  done: 'Done',
  people: 'Who wrote remarks',
  peopleLead: 'Two names that are one person can be joined; a role can be put right.',
  role: (name: string) => `Role of ${name}`,
  asSaid: 'as the file says',
  samePerson: (name: string) => `${name} is the same person as`,
  nobodyElse: 'nobody else',
  roles: {
    instructor: 'instructor',
    assistant: 'assistant',
    'second marker': 'second marker',
    peer: 'peer',
    tutor: 'tutor',
    self: 'yourself',
    machine: 'a machine',
  },
};

/** A size as it is told: kB, MB, or GB with a decimal. */
export function sizeOf(bytes: number): string {
  const megabytes = bytes / 1024 / 1024;
  if (megabytes < 1) return `${Math.max(1, Math.round(bytes / 1024))} kB`;
  return megabytes < 1024 ? `${megabytes.toFixed(1)} MB` : `${(megabytes / 1024).toFixed(1)} GB`;
}
