import { expect, it } from 'vitest';
import { endingOf, fileFault } from './file-kind.ts';

it('tells why a file can’t be handed in', () => {
  const types = ['png', 'jpg'];
  expect(fileFault({ name: 'core.PNG', size: 5 }, types, 10)).toBeNull();
  expect(fileFault({ name: 'core', size: 10 }, [], 10)).toBeNull();
  expect(fileFault({ name: 'core.png', size: 0 }, types, 10)?.kind).toBe('empty');
  expect(fileFault({ name: 'core.png', size: 11 }, types, 10)?.kind).toBe('too large');
  expect(fileFault({ name: 'core.docx', size: 5 }, types, 10)).toEqual({
    kind: 'other kind',
    name: 'core.docx',
    types,
  });
  expect([endingOf('a.b.TXT'), endingOf('.hidden'), endingOf('plain')]).toEqual(['txt', 'hidden', '']);
});
