import { UnreadableFile } from '../unreadable.ts';

/** What is said from when to when, in seconds from the beginning; `speaker` null where none is named. */
export interface Cue {
  readonly fromS: number;
  readonly toS: number;
  readonly speaker: string | null;
  readonly text: string;
}

const TIMES = /^(?:(\d+):)?(\d\d):(\d\d)\.(\d{3})\s+-->\s+(?:(\d+):)?(\d\d):(\d\d)\.(\d{3})/;

/**
 * Reads a WebVTT transcript: what is said from when to when.
 * @throws UnreadableFile 'damaged remarks' for a file that is none
 */
export function readVtt(bytes: Uint8Array): Cue[] {
  const text = new TextDecoder().decode(bytes).replace(/\r\n?/g, '\n');
  if (!/^\uFEFF?WEBVTT([ \t\n]|$)/.test(text)) throw new UnreadableFile('damaged remarks');
  return text.split(/\n\n+/).flatMap((block): Cue[] => {
    const lines = block.split('\n');
    const at = lines.findIndex((line) => TIMES.test(line));
    const found = at < 0 ? null : TIMES.exec(lines[at]);
    if (found === null) return [];
    const seconds = (from: number) =>
      Number(found.at(from) ?? 0) * 3600 +
      Number(found[from + 1]) * 60 +
      Number(found[from + 2]) +
      Number(found[from + 3]) / 1000;
    const raw = lines.slice(at + 1).join('\n');
    return [
      {
        fromS: seconds(1),
        toS: seconds(5),
        speaker: /<v(?:\.[^ >]*)?\s+([^>]+)>/.exec(raw)?.[1].trim() ?? null,
        text: raw
          .replace(/<[^>]*>/g, '')
          .replaceAll('&lt;', '<')
          .replaceAll('&gt;', '>')
          .replaceAll('&amp;', '&')
          .trim(),
      },
    ];
  });
}
