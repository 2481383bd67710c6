export const language = 'en-GB';

export const preview = {
  look: 'Look at it',
  title: 'As it goes',
  lookAt: (name: string) => `Look at it: ${name}`,
  none: (name: string) => `“${name}” can’t be shown here. Save it and open it where it was made.`,
  gone: (name: string) => `“${name}” is not in this browser any more. Bring it in again.`,
  page: (name: string, page: number) => `${name}, page ${page}`,
  at: (page: number, of: number) => `Page ${page} of ${of}`,
  back: 'Page before',
  next: 'Next page',
  close: 'Close',
};

export const receiptSheet = {
  title: (assignment: string) => `Receipt: ${assignment}`,
  course: 'Course',
  receivedAt: 'Received',
  notedAt: 'Handed in, as noted',
  exactly: 'That is (UTC)',
  id: 'Receipt number',
  rule: 'Under the rules',
  how: 'How',
  note: 'Note that went with it',
  post: 'What was posted',
  items: 'What was answered',
  bytes: (count: number) => `${count.toLocaleString('en-GB')} bytes`,
};
