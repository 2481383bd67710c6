import type { AssignmentView } from '#core/assignment/view.ts';
import type { PaperFile } from '#core/assignment/papers.ts';
import { useAddress } from '../../shared/page/address.ts';
import { firstMaterial, materialOf, materials, papersIn, type Material } from './materials.ts';
import type { ReadingState } from './reading-state.ts';

export interface ReadingPlace {
  readonly material: Material;
  /** The files of the material, the one that opens first in front. */
  readonly papers: readonly PaperFile[];
  readonly file: PaperFile | null;
  readonly focusedId: string | null;
  /** Where in the file a link leads: words that stand there, or a page. */
  readonly wanted: { readonly find: string | null; readonly page: number | null };
  readonly focus: (id: string) => void;
  readonly open: (material: Material) => void;
  readonly openFile: (hash: string) => void;
}

/** What is open and in focus: kept in the address, so that a link leads just there. */
export function useReadingPlace(view: AssignmentView, state: ReadingState): ReadingPlace {
  const [search, setSearch] = useAddress();
  const remarkId = search.get('remark');
  const found = view.remarks.find((r) => r.id === remarkId);
  // A link to a remark whose words stand elsewhere too leads to the one that counts.
  const main = [...view.doubles].find(([, doubles]) => doubles.some(({ id }) => id === remarkId))?.[0];
  const remark = found ?? view.remarks.find((r) => r.id === main);
  const given = search.get('material');
  // A match may be read with the remarks of the paper.
  const joined = given === 'paper' && remark?.channel === 'overlap';
  const material: Material =
    remark !== undefined && !joined
      ? materialOf(remark)
      : (materials.find((one) => one === given) ?? firstMaterial(view));
  const papers = papersIn(view, material);
  // One that stands in two copies of a paper is shown in the one that is open.
  const own = remark === undefined ? [] : [remark, ...(view.doubles.get(remark.id) ?? [])];
  const named = search.get('file');
  const stays = joined || own.some(({ paperHash }) => paperHash === named);
  const wanted = stays ? named : (remark?.paperHash ?? named);
  const chosen = papers.find(({ hash }) => hash === wanted);
  // Of the brief the words come first; its files and resources open when they are chosen.
  const file = chosen ?? (material === 'brief' ? null : (papers.at(0) ?? null));
  const focus = (id: string) => {
    const isMatch = view.remarks.find((one) => one.id === id)?.channel === 'overlap';
    setSearch({
      remark: id,
      ...(file !== null && { file: file.hash }),
      ...(isMatch && material === 'paper' && state.together && { material }),
    });
  };
  const open = (next: Material) => setSearch({ material: next });
  const openFile = (hash: string) => setSearch({ material, file: hash });
  const page = Number(search.get('page'));
  return {
    material,
    papers,
    file,
    focusedId: remark?.id ?? null,
    wanted: { find: search.get('find'), page: page > 0 ? page : null },
    focus,
    open,
    openFile,
  };
}
