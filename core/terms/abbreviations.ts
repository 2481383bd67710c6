/**
 * Abbreviations of the trade that a short mark is known by, without what they mean: whoever only looks for short marks needs no
 * more. terms.ts explains them.
 */
export const TERM_ABBREVIATIONS: ReadonlySet<string> = new Set(
  '// a/the agr ant art awk ax axes bq c/s ca cap caps capt circ cit cite cl coh cohes conc conf cs ctrl del descr dev dm ev evid exp frag fused gen ibid id jarg jump lc leap lim mm more ns om omit op par para pass ps punct pv qi r/o reb ref reg run-on s.f s/v scp sf sign sp spg splice summ sv syn synth th tone tr trans trs ts uc unit vt w/y war wc ww ¶'.split(
    ' ',
  ),
);
