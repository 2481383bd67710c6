import { expect, it } from 'vitest';
import { kindByFiles } from './kind.ts';

const sign = (role: string, mediaType = 'application/octet-stream') => ({ role, mediaType });

it.each([
  ['paper', [], []],
  ['paper', [sign('marked', 'application/pdf')], []],
  ['quiz', [sign('quiz')], []],
  ['posts', [sign('posts'), sign('brief', 'application/pdf')], []],
  ['files', [sign('marked', 'image/png')], []],
  ['files', [sign('marked', 'image/png'), sign('brief', 'application/pdf')], []],
  // Photographs of a page come back beside the text they are of.
  ['paper', [sign('marked', 'image/jpeg'), sign('sent', 'application/pdf')], []],
  ['files', [sign('sent', 'audio/ogg')], ['docx']],
  ['files', [], ['png', 'jpg']],
  ['paper', [], ['PNG', 'PDF']],
] as const)('the files make it %s', (kind, papers, fileTypes) => {
  expect(kindByFiles(papers, fileTypes)).toBe(kind);
});
