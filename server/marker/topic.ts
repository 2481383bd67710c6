import { stemsOf } from '#core/text/stems.ts';

/** Each thing that is asked for is about something: what of its words the other things don't ask for. */
export interface Topics {
  /** How much of what a text is about is one topic's, beside the topic that it has most of: 0 to 1. */
  nearness(text: string, topic: string): number;
}

/**
 * Tells whether new words are about what was asked for: by the stems that they share with it, rare ones among all that is
 * asked for weighing more.
 * @param words what each topic is about, by its name
 */
export function topicsOf(words: ReadonlyMap<string, string>): Topics {
  const stems = new Map([...words].map(([topic, text]) => [topic, new Set(stemsOf(text))]));
  const count = new Map<string, number>();
  for (const own of stems.values()) for (const stem of own) count.set(stem, (count.get(stem) ?? 0) + 1);
  const weight = (stem: string) => Math.log((stems.size + 1) / (count.get(stem) ?? 1));
  const shared = (own: ReadonlySet<string>, text: ReadonlySet<string>) =>
    [...own].reduce((sum, stem) => sum + (text.has(stem) ? weight(stem) : 0), 0);
  return {
    nearness(text, topic) {
      const given = new Set(stemsOf(text));
      const all = new Map([...stems].map(([name, own]) => [name, shared(own, given)]));
      const most = Math.max(...all.values());
      return most === 0 ? 0 : (all.get(topic) ?? 0) / most;
    },
  };
}
