import { describe, expect, it } from 'vitest';
import { likelyAssignment, type Candidate } from './likely.ts';

const PAPER =
  'The eastern dams were built in one week of dry weather, and two of them have leaked since the first frost. Water stood higher behind the peat dams than behind the plank dams.';
const OTHER =
  'Cotton grass spreads fast on bare peat, but it holds little water. Mosses follow it within four summers where the surface stays wet in every month of the year.';
const candidates: Candidate[] = [
  { id: 'dams', names: ['Dams at Skarn Moss'], texts: [PAPER] },
  { id: 'grass', names: ['Cotton grass and mosses'], texts: [OTHER] },
];

describe('where a file belongs', () => {
  it('is told by its text, whatever its name', () => {
    const file = { name: 'download (3).pdf', title: '', text: OTHER.replace('four summers', 'five summers') };
    expect(likelyAssignment(file, candidates)).toMatchObject({ id: 'grass', because: 'text' });
  });

  it('is told by its name where its text is another', () => {
    const file = {
      name: 'dams_skarn_marked.pdf',
      title: 'Comments',
      text: 'See me after the next class, please, on Monday.',
    };
    expect(likelyAssignment(file, candidates)).toMatchObject({ id: 'dams', because: 'name' });
  });

  it('is not told by one common word, nor by nothing', () => {
    expect(
      likelyAssignment({ name: 'moss.pdf', title: '', text: 'The dams were built.' }, candidates),
    ).toBeNull();
    expect(likelyAssignment({ name: 'x', title: '', text: '' }, candidates)).toBeNull();
    expect(likelyAssignment({ name: 'x', title: '', text: PAPER }, [])).toBeNull();
  });
});
