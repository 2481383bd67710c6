/** A name as works carry it: a person's, or that of an organisation (`family` alone). */
export interface WorkName {
  readonly family: string;
  readonly given: string;
}

/** A work as files of references describe it; what they leave out is an empty string. */
export interface WorkListed {
  readonly authors: readonly WorkName[];
  readonly title: string;
  /** A journal, a book that it is a part of, a site. */
  readonly within: string;
  /** Four digits. */
  readonly year: string;
  readonly volume: string;
  readonly issue: string;
  /** "21-39". */
  readonly pages: string;
  readonly publisher: string;
  /** Where it was published. */
  readonly town: string;
  /** Where it is found: a DOI as an address, or an address. */
  readonly address: string;
}
