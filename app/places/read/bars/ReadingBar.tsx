import { ToggleButton } from '../../../shared/controls/Toggles.tsx';
import { Select } from '../../../shared/controls/Select.tsx';
import clsx from 'clsx';
import { Button } from '../../../shared/controls/Controls.tsx';
import { Menu, MenuChoice, MenuItem, MenuSwitch } from '../../../shared/controls/Menu.tsx';
import { useIsCut, useNarrow } from '../../../shared/page/hooks.ts';
import { setPreference, usePreferences } from '../../../shared/page/preferences.ts';
import * as words from '../../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { PaperFile } from '#core/assignment/papers.ts';
import type { ReadPaper } from '../../../workspace/storage/records.ts';
import { textStates } from '#formats/layout-segments.ts';
import { paperLabel } from '../materials.ts';
import type { ReadingState } from '../reading-state.ts';
import { ReadingTools } from './ReadingTools.tsx';

/** What of a material is shown, and how: which file, how large, with what, as what. */
export function ReadingBar({
  view,
  state,
  onState,
  onFilter,
  onPaper,
  file,
  papers,
  onFile,
  paper,
  count,
  onGo,
  onLarger,
  finding,
  onFind,
  mayJoin,
  onKeys,
}: {
  view: AssignmentView;
  state: ReadingState;
  onState: (part: Partial<ReadingState>) => void;
  onFilter: () => void;
  /** Whether what is open is a paper with remarks in their places. */
  onPaper: boolean;
  file: PaperFile | null;
  papers: readonly PaperFile[];
  onFile: (hash: string) => void;
  paper: ReadPaper | null;
  /** How many remarks could be shown. */
  count: number;
  onGo: (page: number) => void;
  onLarger: (by: number) => void;
  finding: boolean;
  onFind: () => void;
  /** Whether there are matches that could stand with the remarks. */
  mayJoin: boolean;
  onKeys: () => void;
}) {
  const narrow = useNarrow();
  const [row, isCut] = useIsCut<HTMLDivElement>('row');
  const side = usePreferences((preferences) => preferences.slipSide);
  const machines = usePreferences((preferences) => preferences.machineSlips);
  const hasMachines = view.remarks.some(({ author }) => author.role === 'machine');
  const flows = state.flowing && paper?.kind === 'pdf';
  const mayBeJoined = mayJoin && onPaper && paper !== null;
  const hasSides = onPaper && !narrow && count > 0;
  return (
    <div
      ref={row}
      className={clsx(
        'flex max-w-full shrink-0 items-center gap-0.5 overflow-x-auto text-sm md:ml-auto',
        isCut && 'row-goes-on pr-10',
      )}
    >
      {onPaper && file !== null && (papers.length > 1 || file.role === 'quiz') && (
        <Menu label={file.role === 'quiz' ? paperLabel(view, file) : words.reading.files(papers.length)}>
          <MenuChoice
            value={file.hash}
            options={papers.map((one) => [one.hash, paperLabel(view, one)] as const)}
            onChoose={onFile}
          />
        </Menu>
      )}
      {onPaper && !flows && (paper?.layout?.changes.length ?? 0) > 0 && (
        <Select
          look="tool"
          label={words.reading.viewLabel}
          value={state.text}
          options={textStates.map((one) => [one, words.reading.states[one]] as const)}
          onChange={(value) => onState({ text: textStates.find((one) => one === value) ?? 'changes' })}
        />
      )}
      {onPaper && paper !== null && (
        <>
          <ReadingTools
            pages={flows ? 1 : paper.pages.length}
            zoom={state.zoom}
            onZoom={(zoom) => onState({ zoom })}
            onLarger={onLarger}
            onGo={onGo}
          />
          {paper.kind === 'pdf' && (
            <Toggle first renamed on={state.flowing} onToggle={() => onState({ flowing: !state.flowing })}>
              {state.flowing ? words.reading.pages : words.reading.flow}
            </Toggle>
          )}
          {paper.kind !== 'picture' && (
            <Toggle on={finding} onToggle={onFind}>
              {words.reading.find.open}
            </Toggle>
          )}
        </>
      )}
      {count > 1 && (
        <>
          <Toggle on={state.filtering} marked={Object.keys(state.filter).length > 0} onToggle={onFilter}>
            {words.reading.filterOpen}
          </Toggle>
          <Toggle
            renamed
            on={state.listed !== null}
            onToggle={() => onState({ listed: state.listed === null ? 'page' : null })}
          >
            {state.listed === null ? words.reading.asList : words.reading.asPaper}
          </Toggle>
        </>
      )}
      {(mayBeJoined || hasSides || !narrow) && (
        <Menu label={words.reading.view}>
          {mayBeJoined && (
            <MenuSwitch on={state.together} onToggle={() => onState({ together: !state.together })}>
              {words.reading.together}
            </MenuSwitch>
          )}
          {hasMachines && hasSides && (
            <MenuSwitch on={machines} onToggle={() => setPreference({ machineSlips: !machines })}>
              {words.reading.machines}
            </MenuSwitch>
          )}
          {hasSides && (
            <MenuItem onSelect={() => setPreference({ slipSide: side === 'left' ? 'right' : 'left' })}>
              {side === 'left' ? words.reading.slipsRight : words.reading.slipsLeft}
            </MenuItem>
          )}
          {!narrow && <MenuItem onSelect={onKeys}>{words.reading.allKeys}</MenuItem>}
        </Menu>
      )}
    </div>
  );
}

function Toggle({
  on,
  marked = on,
  renamed = false,
  first = false,
  onToggle,
  children,
}: {
  on: boolean;
  /** Its name says what it will do, so that it is not pressed or not as well. */
  renamed?: boolean;
  /** It comes first where there is little room. */
  first?: boolean;
  /** Whether it shows that it changes what is seen. */
  marked?: boolean;
  onToggle: () => void;
  children: string;
}) {
  const className = clsx(
    'min-h-8 px-1.5 whitespace-nowrap',
    marked && !renamed && 'underline',
    first && 'max-md:order-first',
  );
  return renamed ? (
    <Button look="quiet" className={className} onClick={onToggle}>
      {children}
    </Button>
  ) : (
    <ToggleButton look="quiet" className={className} pressed={on} onToggle={onToggle}>
      {children}
    </ToggleButton>
  );
}
