import type { Mark } from '../marked-paper.ts';
import type { Cue } from './read-vtt.ts';

/** What is said in a recording, cue after cue. */
export function spokenIn(cues: readonly Cue[]): string {
  return cues.map(({ text }) => text).join(' ');
}

/** A recording as the one remark that it is; its words are those of its transcript, "" where there is none. */
export function markOfRecording(author: string, text: string): Mark {
  return {
    sourceId: null,
    kind: 'recording',
    author,
    byMachine: false,
    at: null,
    color: null,
    text,
    subject: null,
    targets: [{ kind: 'time', fromS: 0, toS: null }],
    anchor: null,
    replies: [],
    state: null,
    change: null,
  };
}
