import { many } from './many.ts';

export const send = {
  opening: 'Opening the draft …',
  goes: 'What goes',
  attemptIs: (number: number) => `attempt ${number}`,
  paperIs: 'draft',
  responseIs: 'response sheet',
  paper: 'The draft as a Word file',
  response: 'The response sheet: remark by remark, what was done',
  note: 'A note to your instructor',
  notePlaceholder: 'Optional. It goes with the attempt.',
  rules: 'What the rules say',
  ruleOpen: (number: number, of: number, until: string) =>
    `This will be attempt ${number} of ${of}, taken until ${until}.`,
  ruleClosed: 'This assignment takes no other attempt.',
  ruleAlone: 'Nothing is known here of rules for another attempt.',
  ruleLate: (due: string, points: string) =>
    `Due ${due}; after that ${points} points come off for each started day.`,
  rulePoints: (now: string, most: string, possible: string) =>
    `Now ${now} of ${possible} count; with this attempt at most ${most}.`,
  keptFile: (size: string) => `${size}, just as you brought it in`,
  onTheWay: (sent: string, of: string) =>
    `On its way: ${sent} of ${of}. If it breaks off, it goes on from there.`,
  warnings: (count: number) =>
    `${many(count, 'remark is', 'remarks are')} not answered yet. Check lists them.`,
  send: 'Send to the course desk',
  sending: 'Sending …',
  sure: 'Send this attempt?',
  sureLead: 'Sending can’t be taken back. The draft is kept as it is sent.',
  cancel: 'Not yet',
  waitingToGo: 'The attempt waits to go. It is sent by itself as soon as the course desk is reached.',
  refused: (why: string) =>
    `The course desk did not take it: ${why} Nothing was lost; the draft is as it was.`,
  quiz: 'Take it again',
  quizLead:
    'A quiz is taken at the course desk, on a plain page of its own. Every answer is kept as you give it. What comes of it is read here.',
  quizTake: 'Go to the quiz',
  quizUnreached: 'The course desk is not reached at the moment, so its page will not open.',
  how: 'How you handed it in, and to whom',
  howPlaceholder: 'For instance: by mail to Pascoe Wray',
  handedIn: 'I have handed it in',
  handedInLead:
    'Save what goes first, and hand it in yourself. Then Juncture keeps these very files and a receipt of them. Undo takes it back.',
  ownReceiptLine: (when: string, how: string) =>
    how === '' ? `Handed in ${when}, as you noted` : `Handed in ${when}, as you noted: ${how}`,
  receiptPdf: 'Save the receipt as PDF',
  receiptJson: 'Save the receipt as JSON',
  receiptName: (assignment: string, date: string) => `${assignment}, receipt, ${date}`,
  receipt: 'Receipt',
  receiptLine: (id: string, when: string) => `${id}, received ${when}`,
  file: 'File',
  size: 'Size',
  wordsHead: 'Words',
  pages: 'Pages',
  aboutPages: (count: number) => `about ${count}`,
  hash: 'SHA-256',
  bytes: (count: number) => `${(count / 1024).toFixed(1)} kB`,
  message: 'Write about this handing-in',
  messageOn: 'On the ask list',
  messageFile: (name: string, size: number, hash: string) => `${name}, ${size} bytes, SHA-256 ${hash}`,
  messageText: (of: {
    title: string;
    number: number;
    when: string;
    receipt: string;
    files: readonly string[];
    rule: string;
  }) =>
    [
      `About my attempt ${of.number} at “${of.title}”, handed in ${of.when}, receipt ${of.receipt}.`,
      ...of.files,
      of.rule,
    ]
      .filter((line) => line !== '')
      .join('\n'),
  waiting: 'Waiting to be marked',
  waitingLead: 'You don’t have to do anything. What comes back is announced here and in Arrivals.',
  compareTitle: 'Before and after',
  before: 'Before',
  after: 'After',
  change: 'Change',
  total: 'Score',
  countsLine: (score: string, possible: string) => `${score} of ${possible} count under the rules.`,
  changeIt: 'Change it',
  savePaper: 'Save the draft as a Word file',
  saveResponse: 'Save the response sheet',
  levels: (before: string, after: string) =>
    before === after ? `${after}, as before` : `${before} before, ${after} after`,
  level: (level: string) => `“${level}”`,
  readWhat: 'Read what was said',
};
