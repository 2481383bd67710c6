/** What is used of a package that comes without types. */
declare module '@citation-js/core' {
  export const plugins: {
    readonly input: {
      /** Works as CSL-JSON; throws what its readers throw. */
      chain(text: string, options: { forceType: string; generateGraph: boolean }): unknown;
    };
  };
}
declare module '@citation-js/plugin-bibtex';
