import { describe, expect, it } from 'vitest';
import { fileURLToPath } from 'node:url';
import { UnreadableFile } from '#formats/unreadable.ts';
import { inspect } from './inspect.ts';

const path = (name: string) => fileURLToPath(new URL(`../formats/samples/${name}`, import.meta.url));
const plain = { text: false, onto: null, password: null };

describe('inspect', () => {
  it('tells a PDF’s remarks with every field', async () => {
    const { kind, pages, text, remarks } = await inspect(path('kinds.pdf'), plain);
    expect([kind, pages, text, remarks.length]).toEqual(['pdf', 1, undefined, 17]);
    expect(remarks.find((remark) => remark.text.startsWith('Which two?'))).toEqual({
      kind: 'highlight',
      page: 1,
      author: 'Dr Aune Keld',
      created: '2026-03-02T09:15:00.000Z',
      color: '#f5d940',
      exact: 'leaked since the first frost',
      text: 'Which two? Name them here.',
      replies: [
        {
          author: 'Ines Tarrow',
          created: '2026-03-05T10:00:00.000Z',
          text: 'Planks 3 and 5.',
          replies: [
            {
              author: 'Dr Aune Keld',
              created: '2026-03-06T10:00:00.000Z',
              text: 'Then say so.',
              replies: [],
            },
          ],
        },
      ],
      state: 'Completed',
      origin: 'person',
    });
  });

  it('tells the text on request, with changes accepted', async () => {
    const { text, pages } = await inspect(path('dams-changed.docx'), { ...plain, text: true });
    expect(pages).toBeNull();
    expect(text).toContain('The wardens each Friday and noted the levels.');
  });

  it('puts remarks of a file of their own onto a paper', async () => {
    const alone = await inspect(path('same.xfdf'), plain);
    expect(alone.remarks.map(({ exact }) => exact)).toEqual(Array.from({ length: 7 }, () => null));
    const onto = await inspect(path('same.xfdf'), { ...plain, onto: path('dams-plain.pdf') });
    expect(onto.remarks.map(({ exact }) => exact)).toContain('leaked since the first frost');
    const quoted = await inspect(path('same.jsonld'), plain);
    expect(quoted.remarks.map(({ exact }) => exact)).toContain('41 litres');
    expect(quoted.remarks.every(({ page }) => page === null)).toBe(true);
  });

  it.each([
    ['spoken.mp3', 'recording'],
    ['spoken.vtt', 'transcript'],
    ['core.png', 'picture'],
    ['make.sh', 'text'],
  ])('%s is a %s without remarks', async (name, kind) => {
    expect(await inspect(path(name), plain)).toEqual({ kind, pages: null, remarks: [] });
  });

  it('needs the password of a locked file', async () => {
    await expect(inspect(path('locked.pdf'), plain)).rejects.toBeInstanceOf(UnreadableFile);
    expect((await inspect(path('locked.pdf'), { ...plain, password: 'peat' })).remarks).toHaveLength(1);
  });
});
