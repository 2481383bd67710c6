import { describe, expect, it } from 'vitest';
import { asId, AssignmentId, RemarkId, VersionId } from '../model/ids.ts';
import { blocksOfLines, paperOf } from '../paper/paper.ts';
import { isGiven } from './given.ts';
import { changedAgain, pickIn } from './picks.ts';

const paper = (text: string) => paperOf(blocksOfLines(text));
const VERSION = paper('Wells were read at noon. The rim was wet. Nobody looked at it.\nThe rim was wet.');
const pickOf = (exact: string, from = VERSION.text.indexOf(exact)) => ({
  versionId: asId(VersionId, 'v'),
  from,
  to: from + exact.length,
  exact,
});
const shown = (text: string, exact: string, from?: number) => {
  const newer = paper(text);
  const { stands, place } = pickIn(newer, pickOf(exact, from), VERSION);
  return [stands, place === null ? null : newer.text.slice(place.from, place.to), place?.from];
};

describe('words that were taken as an answer', () => {
  it('stand where they read as they did, of several places at the nearest', () => {
    const more = `Some more. ${VERSION.text}`;
    expect(shown(more, 'The rim was wet.')).toEqual([true, 'The rim was wet.', 36]);
    const second = VERSION.text.lastIndexOf('The rim');
    expect(shown(more, 'The rim was wet.', second)).toEqual([true, 'The rim was wet.', second + 11]);
  });

  it('are followed from their version where they were changed again', () => {
    expect(
      shown('Wells were read at noon. The rim was very wet. Nobody looked at it.', 'The rim was wet.'),
    ).toEqual([false, 'The rim was very wet.', 25]);
  });

  it('are gone where nothing is left of them', () => {
    expect(shown('Wells were read at noon.', 'Nobody looked at it.')).toEqual([false, null, undefined]);
    const newer = paper('Wells were read at noon.');
    expect(pickIn(newer, pickOf('Nobody looked at it.'), null)).toMatchObject({ stands: false, place: null });
    // A version that is another text tells nothing.
    expect(pickIn(newer, { ...pickOf('Nobody looked at it.'), from: 3 }, VERSION).place).toBeNull();
  });

  it('stand as a gap: that something was taken out can’t be read', () => {
    expect(shown('All else.', '')).toEqual([true, null, undefined]);
  });
});

it('an answer says, shows or brings something', () => {
  const none = {
    remarkId: 'r' as never,
    partId: null,
    assignmentId: 'a' as never,
    words: ' ',
    regions: [],
    places: [],
    files: [],
  };
  expect(isGiven(none)).toBe(false);
  expect(isGiven({ ...none, words: 'Done.' })).toBe(true);
  expect(isGiven({ ...none, places: [pickOf('')] })).toBe(true);
});

it('answers are told that were changed again since', () => {
  const [stood, changed] = [pickOf('The rim was wet.'), pickOf('Nobody looked at it.')];
  const newer = paper('Wells were read at noon. The rim was wet. Everybody looked at it.');
  const picks = new Map([stood, changed].map((pick) => [pick, pickIn(newer, pick, VERSION)]));
  const given = (key: string, places: (typeof stood)[]) => ({
    remarkId: asId(RemarkId, key),
    partId: null,
    assignmentId: asId(AssignmentId, 'a'),
    words: '',
    regions: [],
    places,
    files: [],
  });
  const all = [given('x', [stood]), given('y', [stood, changed]), given('z', [])];
  expect(changedAgain(all, picks).map(({ remarkId }) => remarkId)).toEqual(['y']);
});
