/** What is told of a remark that has no words of its own. */
export const said = {
  noWords: 'This mark came without words.',
  noTranscript: 'A recording without a transcript. Play it to hear what it says.',
  change: {
    insertion: (text: string) => `Put in: “${text}”`,
    deletion: (text: string) => `Taken out: “${text}”`,
    move: (text: string) => `Moved: “${text}”`,
    format: (text: string) => `Looks changed: “${text}”`,
  },
};
