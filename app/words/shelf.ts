import { many } from './many.ts';

export const shelf = {
  title: 'Shelf',
  lead: 'Everything is in this browser, on this computer. Save it from time to time.',
  save: 'Save the workspace as a ZIP',
  saving: 'Putting it together …',
  saved: (name: string, size: string) => `Saved as ${name}, ${size}.`,
  restore: 'Read a saved workspace back',
  restoreTitle: 'Replace everything here?',
  restoreLead: (when: string, remarks: number) =>
    `The ZIP was saved ${when} and holds ${many(remarks, 'remark', 'remarks')}. It takes the place of what is in this workspace now.`,
  replace: 'Replace',
  cancel: 'Leave it as it is',
  restored: 'The workspace is as it was saved.',
  files: 'Files',
  noFiles: 'No files yet.',
  name: 'Name',
  origin: 'Where from',
  size: 'Size',
  came: 'Since',
  get: 'Save a copy',
  origins: { desk: 'course desk', dropped: 'dropped in', written: 'written here' },
  checking: 'Checking the ZIP …',
  usedIn: (title: string) => `in ${title}`,
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

export function sizeOf(bytes: number): string {
  return bytes < 1024 * 1024
    ? `${Math.max(1, Math.round(bytes / 1024))} kB`
    : `${(bytes / 1024 / 1024).toFixed(1)} MB`;
}
