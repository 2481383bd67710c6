/** Fields of study that examples are written for. */
export type Field = 'science' | 'law' | 'arts' | 'computing';

const SIGNS: readonly (readonly [Field, RegExp])[] = [
  ['law', /\b(?:law|legal|justice|rights|commons|policy|governance|politics)\b/i],
  ['computing', /\b(?:comput\w+|programming|software|algorithms?|data|code|coding|informatics)\b/i],
  [
    'science',
    /\b(?:\w*hydro\w*|moss\w*|sedges?|bio\w+|chem\w+|phys\w+|geo\w+|ecolog\w+|astronom\w+|engineering|lab|medicine|nursing|soil|peat\w*|bog)\b/i,
  ],
  [
    'arts',
    /\b(?:literature|english|history|philosophy|music|drama|theatre|film|arts?|writing|composition|religion)\b/i,
  ],
];

/** The field that a course's title tells of; null where it tells none. */
export function fieldOf(title: string): Field | null {
  return SIGNS.find(([, pattern]) => pattern.test(title))?.[0] ?? null;
}
