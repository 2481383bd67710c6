import type { RuleReference } from '#core/model/work.ts';
import * as words from '../../words/en.ts';

/** What a rule says, and where it is explained. */
export function RuleTold({ entry }: { entry: RuleReference }) {
  const { title, says, where, link, page } = entry;
  const place = words.slip.ruleWhere(where, page);
  return (
    <>
      <p>
        <b>{title}</b> {says}
      </p>
      {(place !== '' || link !== '') && (
        <p className="text-quiet">
          {link === '' ? (
            place
          ) : (
            <a
              href={link}
              target="_blank"
              rel="noreferrer"
              className="font-semibold text-accent hover:underline"
            >
              {place === '' ? link : place}
            </a>
          )}
        </p>
      )}
    </>
  );
}
