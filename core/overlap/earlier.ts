import type { AssignmentView } from '../assignment/view.ts';
import type { FileHash } from '../model/ids.ts';

/**
 * The student's earlier attempts at the same assignment: of a draft all that came back, of the marked version those before
 * it. A draft stage is an earlier attempt at its final.
 */
export function earlierAttempts(
  { attempts, markedFile }: Pick<AssignmentView, 'attempts' | 'markedFile'>,
  of: 'marked' | 'draft',
): FileHash[] {
  const returned = attempts.flatMap(({ attempt, marking }) =>
    (marking?.files ?? []).flatMap(({ role, hash }) =>
      role === 'marked' ? [{ number: attempt.number, hash }] : [],
    ),
  );
  const number = returned.find(({ hash }) => hash === markedFile?.hash)?.number ?? 0;
  const earlier = of === 'draft' ? returned : returned.filter((one) => one.number < number);
  const all = [
    ...earlier.map(({ hash }) => hash),
    ...(of === 'draft' && markedFile !== null ? [markedFile.hash] : []),
  ];
  return [...new Set(all)];
}
