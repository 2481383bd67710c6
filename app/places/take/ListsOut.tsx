import { Button, SectionTitle } from '../../shared/controls/Controls.tsx';
import { Menu, MenuItem } from '../../shared/controls/Menu.tsx';
import { fileNameOf } from '../../shared/files/file-name.ts';
import type { AssignmentOutlet } from '../../shared/page/assignment-outlet.ts';
import { offerFile } from '../../shared/page/notify.ts';
import * as words from '../../words/en.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import { listsOf, type ListOut } from './lists.ts';

/** Remarks in open formats, and what the student made of them, each as a file. */
export function ListsOut({ outlet }: { outlet: AssignmentOutlet }) {
  const workspace = useWorkspace();
  const { view } = outlet;
  const lists = listsOf(workspace, outlet);
  const save = async ({ is, ending, mediaType, write }: ListOut['forms'][number]) => {
    const bytes = await write();
    if (bytes !== null) offerFile(fileNameOf(workspace, view, is, ending), bytes, mediaType);
  };
  if (lists.length === 0) return null;
  return (
    <section>
      <SectionTitle>{words.takeAlong.lists}</SectionTitle>
      <p className="text-sm text-quiet">{words.takeAlong.listsLead}</p>
      <ul className="mt-2">
        {lists.map(({ title, forms }) => (
          <li
            key={title}
            className="flex flex-wrap items-center gap-x-4 border-t border-rule py-1.5 last:border-b"
          >
            <span className="min-w-0 flex-1">{title}</span>
            {forms.length === 1 ? (
              <Button look="quiet" className="min-h-0 px-1 text-sm" onClick={() => void save(forms[0])}>
                {saveLabel(title)}
              </Button>
            ) : (
              <Menu label={saveLabel(title)}>
                {forms.map((form) => (
                  <MenuItem key={form.ending} onSelect={() => void save(form)}>
                    {form.shown}
                  </MenuItem>
                ))}
              </Menu>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

function saveLabel(title: string) {
  return (
    <span>
      {words.takeAlong.saveFile}
      <span className="sr-only"> {title}</span>
    </span>
  );
}
