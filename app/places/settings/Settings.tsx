import { Radios } from '../../shared/controls/Radios.tsx';
import { Link } from 'react-router';
import { useWorkspace } from '../../workspace/use-workspace.ts';
import { Button, SectionTitle } from '../../shared/controls/Controls.tsx';
import { usePlaceTitle } from '../../shared/page/place-title.ts';
import {
  DATE_LANGUAGES,
  setPreference,
  usePreferences,
  type Preferences,
} from '../../shared/page/preferences.ts';
import { RemoveButton } from '../../shared/controls/RemoveButton.tsx';
import { Select } from '../../shared/controls/Select.tsx';
import { shownMoment } from '../../shared/shown/shown.ts';
import { useUndoKey } from '../../shared/page/hooks.ts';
import { redoAndTell, undoAndTell } from '../../shared/page/notify.ts';
import { useSingleKeys } from '../../shared/page/single-keys.ts';
import * as words from '../../words/en.ts';
import { forgetWord } from '../../workspace/commands/look.ts';
import { putSetting, SETTINGS_SCOPE } from '../../workspace/commands/settings.ts';
import { useSetting } from '../../workspace/state/settings.ts';
import { useSession } from '../../workspace/state/use-session.ts';
const THEMES: readonly Preferences['theme'][] = ['system', 'light', 'dark'];
const SIZES: readonly Preferences['textSize'][] = ['100', '125', '150', '200'];

/** A language in its own words. */
function languageShown(language: string): string {
  return new Intl.DisplayNames(language, { type: 'language' }).of(language) ?? language;
}

export function Settings() {
  usePlaceTitle(words.places.settings);
  const preferences = usePreferences();
  const session = useSession();
  const workspace = useWorkspace();
  const { identity } = workspace;
  const singleKeys = useSingleKeys();
  useUndoKey(
    () => void undoAndTell(workspace, SETTINGS_SCOPE),
    () => void redoAndTell(workspace, SETTINGS_SCOPE),
  );
  return (
    <div className="mx-auto grid grid-cols-1 max-w-2xl gap-7 p-6 pb-40 max-md:p-4">
      <h1 className="font-serif text-xl font-semibold">{words.settings.title}</h1>
      <Radios
        title={words.settings.theme}
        options={THEMES.map((theme) => ({ value: theme, label: words.settings.themes[theme] }))}
        chosen={preferences.theme}
        onChoose={(theme) => setPreference({ theme })}
      />
      <Radios
        title={words.settings.textSize}
        options={SIZES.map((size) => ({ value: size, label: words.settings.textSizes[size] }))}
        chosen={preferences.textSize}
        onChoose={(textSize) => setPreference({ textSize })}
      />
      <section>
        <SectionTitle>{words.settings.dates}</SectionTitle>
        <p className="my-2 text-quiet">{words.settings.datesLead}</p>
        <Select
          label={words.settings.dates}
          value={preferences.dates}
          options={DATE_LANGUAGES.map((value) => [value, languageShown(value)] as const)}
          onChange={(value) => setPreference({ dates: value as Preferences['dates'] })}
        />
        <p className="mt-2 text-quiet">{shownMoment(workspace.now(), undefined)}</p>
      </section>
      <Radios
        title={words.settings.keys}
        lead={words.settings.keysLead}
        options={[
          { value: 'on', label: words.settings.on },
          { value: 'off', label: words.settings.off },
        ]}
        chosen={singleKeys ? 'on' : 'off'}
        onChoose={(value) => void putSetting(workspace, { name: 'singleKeys', on: value === 'on' })}
      />
      <OwnWords />
      <section>
        <SectionTitle>{words.marks.title}</SectionTitle>
        <p className="my-2 text-quiet">{words.marks.lead}</p>
        <Link to="/marks" className="font-semibold text-accent hover:underline">
          {words.settings.toMarks}
        </Link>
      </section>
      <section>
        <SectionTitle>{words.settings.workspace}</SectionTitle>
        <p className="my-2 text-quiet">
          {identity.kind === 'student' ? words.settings.whose(identity.studentName) : words.settings.alone}{' '}
          {words.settings.leaveLead}
        </p>
        <Button onClick={() => void session.leave()}>
          {identity.kind === 'student' ? words.settings.leave : words.settings.leaveAlone}
        </Button>
      </section>
    </div>
  );
}

/** Words that no dictionary has and that are spelt as the student wants them. */
function OwnWords() {
  const workspace = useWorkspace();
  const own = useSetting('ownWords')?.words ?? [];
  return (
    <section>
      <SectionTitle>{words.settings.ownWords}</SectionTitle>
      <p className="my-2 text-quiet">
        {own.length === 0 ? words.settings.noOwnWords : words.settings.ownWordsLead}
      </p>
      <ul className="flex flex-wrap gap-x-4 gap-y-1">
        {own.map((word) => (
          <li key={word} className="inline-flex items-center">
            {word}
            <RemoveButton
              beside="line"
              label={words.settings.forgetWord(word)}
              onClick={() => void forgetWord(workspace, SETTINGS_SCOPE, word)}
            />
          </li>
        ))}
      </ul>
    </section>
  );
}
