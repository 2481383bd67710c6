import type { Where } from '#core/answers/propose.ts';
import type { SheetGroup } from '#core/check/response-sheet.ts';
import { many } from './many.ts';

const numbers = (all: readonly number[]) =>
  all.length < 2 ? all.join('') : `${all.slice(0, -1).join(', ')} and ${all[all.length - 1]}`;

export const response = {
  place: 'Response sheet',
  lead: 'An account for your instructor: what was asked, what you did about it, and where. Change it as you like.',
  open: 'Write the response sheet',
  how: 'How it is written',
  coming: 'Reading what became of each remark …',
  nothing: 'No remark came back, so there is nothing to account for.',
  helpedMe: 'helped me most',
  title: (assignment: string) => `Response to the remarks on “${assignment}”`,
  form: 'As',
  forms: { table: 'a table', letter: 'a letter' },
  by: 'In the order of',
  orders: { 'what came of it': 'what came of it', criterion: 'criteria' },
  which: (left: number) =>
    left === 0 ? 'All remarks are in it' : `${many(left, 'remark', 'remarks')} left out`,
  put: (number: number, says: string) => `Remark ${number} is in it: ${says}`,
  helped: (number: number) => `${number} helped most`,
  edited: 'You changed this sheet, so it stays as it is.',
  anew: 'Write it anew',
  anewTitle: 'Write it anew?',
  anewLead: 'What you changed in it goes. Undo brings it back.',
  save: 'Save it',
  undo: 'the response sheet',
  text: 'Text of the response sheet',
  ofGroup: (student: string, group: string, members: readonly string[]) =>
    `${student === '' ? 'From' : `From ${student}, of`} ${group} (${members.join(', ')}).`,
  doneBy: (who: string) => `Done by ${who}.`,
  counts: (of: Readonly<Record<SheetGroup, number>>, all: number, leftOut: number) => {
    const told = [
      of.done > 0 ? `${of.done} answered` : '',
      of['not done'] > 0 ? `${of['not done']} not taken up` : '',
      of.asked > 0 ? `${of.asked} asked about` : '',
      of.kept > 0 ? `${of.kept} kept up` : '',
      of.carried > 0 ? `${of.carried} carried to the next assignment` : '',
      of.noted > 0 ? `${of.noted} calling for nothing` : '',
      of.open > 0 ? `${of.open} without an answer yet` : '',
    ].filter((one) => one !== '');
    const left = leftOut === 0 ? '' : ` ${many(leftOut, 'remark is', 'remarks are')} left out of this sheet.`;
    return `${many(all, 'remark', 'remarks')} came back: ${told.join(', ')}.${left}`;
  },
  group: {
    done: 'What was asked and done',
    'not done': 'What I did not take up, and why',
    asked: 'What I ask',
    open: 'Without an answer yet',
    kept: 'What I go on doing',
    carried: 'What I take along to the next assignment',
    noted: 'What called for nothing',
  } satisfies Record<SheetGroup, string>,
  columns: ['Remark', 'What was done, and where', 'Before and now'] as const,
  noCriterion: 'About no criterion',
  greeting: (name: string) => (name === '' ? 'Dear reader,' : `Dear ${name},`),
  opening: (assignment: string) =>
    `thank you for the remarks on “${assignment}”. This is what I made of them; numbers are those of the remarks.`,
  closing: (name: string) => (name === '' ? 'With kind regards' : `With kind regards, ${name}`),
  helpedMost: (all: readonly number[]) =>
    all.length === 1 ? `Remark ${numbers(all)} helped me most.` : `Remarks ${numbers(all)} helped me most.`,
  said: (number: number, says: string) => `${number}. ${says}`,
  about: (page: number | null, quote: string | null) =>
    [page === null ? '' : `page ${page}`, quote === null ? '' : `“${quote}”`]
      .filter((one) => one !== '')
      .join(', '),
  inText: (how: string | null, heading: string | null, paragraph: number, page: number | null) => {
    const where = [
      ...(heading === null ? [] : [`“${heading}”`]),
      `paragraph ${paragraph}`,
      ...(page === null ? [] : [`page ${page}`]),
    ].join(', ');
    return how === null ? `In ${where}.` : `${how}: ${where}.`;
  },
  before: 'Before: ',
  now: 'Now: ',
  reply: (text: string) => `Reply: ${text}`,
  why: (text: string) => `Why: ${text}`,
  part: (quote: string, decision: string) => `“${quote}”: ${decision}`,
  question: (text: string) => `My question: ${text}`,
  shownAt: (place: string) => `Shown in the new picture at ${place} (left, top, width, height in pixels).`,
  decided: {
    keep: 'I go on doing this.',
    decline: 'Not taken up.',
    asked: 'Asked about.',
    toAsk: 'To be asked.',
    carried: 'Taken along to the next assignment.',
    none: 'No decision was made.',
  },
  whole: 'the work as a whole',
  criterion: (title: string) => `criterion “${title}”`,
  answeredBy: {
    'in its words': 'Rewritten',
    'in its sentence': 'Added in its sentence',
    'beside it': 'Added beside it',
    'in its paragraph': 'Changed in the same paragraph',
    'in its section': 'Changed in the same section',
    elsewhere: 'Changed elsewhere in the text',
  } satisfies Record<Where, string>,
  takenOut: 'Taken out.',
  pick: (text: string) => `“${text}”`,
  inFile: (name: string) => `In the file “${name}”.`,
  taskDone: 'Done.',
  taskOpen: 'No answer yet.',
};
