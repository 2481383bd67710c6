import { stemmer } from 'stemmer';
import type { RuleReference } from '../model/work.ts';

/** A rule of language or form as the list of rule references begins; the student changes, removes and adds. */
interface FirstRule {
  /** Words by which a machine’s rule code or remark is known to be about it. */
  readonly rule: string;
  readonly title: string;
  readonly says: string;
}

/** In the order of what they are about: sentences, commas and stops, words, form. */
const FIRST_RULES: readonly FirstRule[] = [
  {
    rule: 'comma splice',
    title: 'Two sentences and a comma',
    says: 'A comma can’t hold two whole sentences together. Set a stop, a semicolon, or a word such as “and”.',
  },
  {
    rule: 'run-on',
    title: 'Two sentences and nothing',
    says: 'Two whole sentences need something between them. Part them, or join them with a word.',
  },
  {
    rule: 'fragment',
    title: 'A sentence needs a verb',
    says: 'What stands between two stops has a subject and a verb of its own, or belongs to its neighbour.',
  },
  {
    rule: 'comma introductory',
    title: 'A comma after what leads in',
    says: 'After words that lead into a sentence, a comma shows where it begins: “In May, the level fell.”',
  },
  {
    rule: 'comma list',
    title: 'Commas in a list',
    says: 'Members of a list are set apart by commas; whether one stands before “and” your style says, and you keep to it.',
  },
  {
    rule: 'comma nonrestrictive which',
    title: 'A comma before “which”',
    says: 'What could be left out stands between commas; what tells which one is meant does not.',
  },
  {
    rule: 'semicolon',
    title: 'The semicolon',
    says: 'It joins two whole sentences that belong together, or the members of a list that hold commas.',
  },
  {
    rule: 'colon',
    title: 'The colon',
    says: 'Before it stands a whole sentence; after it what that promised.',
  },
  {
    rule: 'apostrophe possessive',
    title: 'The apostrophe of owning',
    says: 'One owner: “the dam’s wall”. Several: “the dams’ walls”. “Its” has none.',
  },
  {
    rule: "its it's",
    title: '“Its” and “it’s”',
    says: '“It’s” is short for “it is”. If that doesn’t fit, it is “its”.',
  },
  {
    rule: 'there their',
    title: '“There”, “their”, “they’re”',
    says: 'A place, an owner, and short for “they are”.',
  },
  {
    rule: 'affect effect',
    title: '“Affect” and “effect”',
    says: 'To affect is to change something; an effect is the change.',
  },
  { rule: 'then than', title: '“Then” and “than”', says: '“Then” is about time, “than” compares.' },
  {
    rule: 'fewer less',
    title: '“Fewer” and “less”',
    says: 'What can be counted is fewer, what can’t is less.',
  },
  {
    rule: 'subject verb agreement',
    title: 'Verb and subject',
    says: 'The verb goes with its subject, whatever stands between: “the list of wells is long”.',
  },
  {
    rule: 'pronoun agreement',
    title: 'A pronoun and what it stands for',
    says: 'It has the number of its noun: “each well has its tube”.',
  },
  {
    rule: 'pronoun reference',
    title: 'What “this” stands for',
    says: 'Each “this” and “it” has one noun that it can mean; where in doubt, say the noun.',
  },
  {
    rule: 'tense consistency',
    title: 'One time for one story',
    says: 'What happened is told in one tense, unless the time itself changes.',
  },
  {
    rule: 'passive voice',
    title: 'Who does it?',
    says: 'Turn the sentence so that the doer is its subject, unless the doer does not matter.',
  },
  {
    rule: 'article usage',
    title: '“A”, “the” or nothing',
    says: 'The first time “a”, known ones “the”; what can’t be counted and is meant in general has neither.',
  },
  {
    rule: 'preposition',
    title: 'The small word that goes with it',
    says: 'Verbs and nouns have their own: depend on, differ from, a rise in. Look them up once, write them down.',
  },
  {
    rule: 'word order',
    title: 'The order of words',
    says: 'In English: who, does, what, how, where, when. What you move to the front is stressed.',
  },
  { rule: 'double negative', title: 'Two denials', says: 'Two words that deny cancel each other: keep one.' },
  {
    rule: 'spelling',
    title: 'The spelling',
    says: 'One spelling for a word through the whole text; names as their owners write them.',
  },
  {
    rule: 'capitalization',
    title: 'Capital letters',
    says: 'The beginning of a sentence and names; not seasons, nor things because they are important.',
  },
  {
    rule: 'repeated word',
    title: 'The same word twice',
    says: '“the the”: mostly a slip after a line break. One is to go.',
  },
  {
    rule: 'repetition',
    title: 'The same word again and again',
    says: 'Three times in two sentences is heard. Turn the sentence before you reach for another word.',
  },
  {
    rule: 'wordiness',
    title: 'Too many words',
    says: 'Look for “in order to”, “the fact that”, “it is ... that”: nearly always one word does.',
  },
  {
    rule: 'redundancy',
    title: 'Said twice in one breath',
    says: '“Repeat again”, “end result”: one of the two says it.',
  },
  {
    rule: 'informal contraction',
    title: 'Contractions',
    says: '“Don’t” and “it’s” are spoken; whether they may stand in a paper your style says.',
  },
  {
    rule: 'split infinitive',
    title: 'Between “to” and its verb',
    says: 'Something may stand there if it reads better; some readers mind.',
  },
  {
    rule: 'dangling modifier',
    title: 'Who is walking?',
    says: 'The words in front belong to the subject that follows: “Walking over the bog, we saw ...”',
  },
  {
    rule: 'parallelism',
    title: 'One form for one list',
    says: 'The members of a list are of one kind: all nouns, or all verbs.',
  },
  {
    rule: 'hyphen compound',
    title: 'The hyphen',
    says: 'Two words that act as one before a noun are joined: “a well-kept log”; after it they are not.',
  },
  {
    rule: 'number words',
    title: 'Numbers in words',
    says: 'Up to ten in words, above in figures, unless there is a unit; and not at the beginning of a sentence.',
  },
  {
    rule: 'quotation punctuation',
    title: 'Stops and quotation marks',
    says: 'Whether the stop stands inside or outside depends on your style. One way through the whole text.',
  },
  {
    rule: 'whitespace',
    title: 'Spaces',
    says: 'One between words, none before a stop or comma, one before a unit.',
  },
  {
    rule: 'heading consistency',
    title: 'Headings',
    says: 'Headings of one level look alike and are built alike.',
  },
  {
    rule: 'citation format',
    title: 'How a source is named',
    says: 'Author, year, page where words are quoted: in the form of your style, the same everywhere.',
  },
  {
    rule: 'reference list',
    title: 'The list of references',
    says: 'Each source that is named stands in the list, and none that is not; by author, all in one form.',
  },
];

/** The list of rule references before the student changes anything of it. */
export const firstRuleReferences: readonly RuleReference[] = FIRST_RULES.map((first) => ({
  ...first,
  id: `first/${first.rule}`,
  where: '',
  link: '',
  page: '',
}));

/** What the student made of the list: own entries, and first ones in the form they were given; removed ones are empty. */
export function ruleReferencesWith(own: Iterable<RuleReference>): RuleReference[] {
  const changed = new Map([...own].map((one) => [one.id, one]));
  const kept = firstRuleReferences.map((first) => changed.get(first.id) ?? first);
  const added = [...changed.values()].filter(({ id }) =>
    firstRuleReferences.every((first) => first.id !== id),
  );
  return [...kept, ...added].filter(({ title }) => title !== '');
}

/**
 * The entry that a rule goes by: one that is called just so, else the one of whose words most stand in the rule's code or in
 * what the machine says; null where none fits.
 */
export function referenceFor(
  rule: string,
  said: string,
  references: readonly RuleReference[],
): RuleReference | null {
  const code = wordsIn(rule);
  const exact = references.find((one) => wordsIn(one.rule).join(' ') === code.join(' '));
  if (exact !== undefined && code.length > 0) return exact;
  const heard = new Set([...code, ...wordsIn(said)]);
  let best: { entry: RuleReference; count: number } | null = null;
  for (const entry of references) {
    const words = wordsIn(entry.rule);
    if (words.length === 0 || !words.every((word) => heard.has(word))) continue;
    if (best === null || words.length > best.count) best = { entry, count: words.length };
  }
  return best?.entry ?? null;
}

/** The words of a code such as COMMA_SPLICE, commaSplice or comma-splice, without endings that vary. */
function wordsIn(code: string): string[] {
  return (
    code
      .replace(/(\p{Ll})(\p{Lu})/gu, '$1 $2')
      .toLowerCase()
      .match(/\p{L}+(?:['’]\p{L}+)?/gu) ?? []
  ).map((word) => stemmer(word.replace('’', "'")));
}
