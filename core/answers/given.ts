import type { GivenAnswer } from '../model/work.ts';

/** Whether an answer says or shows anything. */
export function isGiven({ words, regions, places, files }: GivenAnswer): boolean {
  return words.trim() !== '' || regions.length > 0 || places.length > 0 || files.length > 0;
}
