import markingRules from './marking-rules.json' with { type: 'json' };
import works from './marking-works.json' with { type: 'json' };
import ways from './marking-words.json' with { type: 'json' };

const WAYS = new Map<string, string>(Object.entries(ways));
const NAMED = /<([a-z ]+)>/g;

/** A pattern with the ways to say something put in for their names; whole words, however they begin. */
function spelled(pattern: string): string {
  return pattern.replace(NAMED, (_, name: string) => {
    const way = WAYS.get(name);
    if (way === undefined)
      throw new Error(`the marker’s rules name “${name}”, which marking-words.json lacks`);
    return `(?:${spelled(way)})`;
  });
}

/** Every pattern of some rules with its names spelled out. */
function spelledOut<Rules>(rules: Rules): Rules {
  return JSON.parse(JSON.stringify(rules), (_, value: unknown) =>
    typeof value === 'string' ? spelled(value) : value,
  ) as Rules;
}

/** How the demo's marker judges, with its names spelled out. @param sample English text, by which word order is judged */
export function markingRulesWith(sample: string) {
  return spelledOut({ ...markingRules, works: works.works, text: { ...markingRules.text, sample } });
}
