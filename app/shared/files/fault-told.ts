import type { FileFault } from '#core/check/file-kind.ts';
import * as words from '../../words/en.ts';

/** Why a file can't be handed in, as a sentence. */
export function faultTold(fault: FileFault): string {
  switch (fault.kind) {
    case 'empty':
      return words.newFiles.fileEmpty(fault.name);
    case 'too large':
      return words.unreadable['too large'](fault.name, '');
    case 'other kind':
      return words.newFiles.fileOfOtherKind(fault.name, fault.types);
  }
}
