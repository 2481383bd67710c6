export const title = 'The items, beside your old answers';
export const lead = 'Those that lost points come first. What you leave empty stays as it was.';
export const none = 'This activity is marked as a whole, so it is answered as a whole. Does it have items?';
export const putIn = 'Put them in, each as a criterion';
export const before = 'You answered';
export const said = (who: string) => `${who} said`;
export const answer = 'Your new answer';
export const answerTo = (item: string) => `New answer to “${item}”`;
export const answered = (count: number, of: number) => `${count} of ${of} items are answered again.`;
