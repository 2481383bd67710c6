import { readFileSync } from 'node:fs';

/** The bytes of a file in this folder. */
export function sample(name: string): Uint8Array<ArrayBuffer> {
  return new Uint8Array(readFileSync(new URL(`./${name}`, import.meta.url)));
}

/** One remark as an independent program tells it. */
export interface TrueRemark {
  readonly kind: string;
  readonly page?: number;
  readonly author: string;
  readonly created?: string | null;
  readonly color?: string | null;
  readonly exact: string | null;
  readonly text?: string;
  readonly state?: string | null;
  readonly replies?: readonly { readonly author: string; readonly text: string; readonly created: string }[];
}

/** What the maker of the samples wrote down about each: by file, its remarks. */
export function truth(name: string): Record<string, TrueRemark[]> {
  return JSON.parse(new TextDecoder().decode(sample(name))) as Record<string, TrueRemark[]>;
}
