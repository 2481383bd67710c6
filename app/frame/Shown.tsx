import { useNavigate } from 'react-router';
import * as words from '../words/en.ts';
import { useSession } from '../workspace/state/use-session.ts';
import { useWorkspace } from '../workspace/use-workspace.ts';

/** Says that what is looked at is somebody else's, and leads back. */
export function Shown() {
  const session = useSession();
  const navigate = useNavigate();
  const { identity } = useWorkspace();
  const back = async () => {
    await session.back();
    void navigate('/shelf');
  };
  return (
    <p className="flex flex-wrap items-center gap-x-4 border-b border-rule bg-sunken px-5 py-2 text-sm">
      {words.shelf.shown(identity.kind === 'shown' ? identity.by : '')}
      <button
        type="button"
        className="min-h-8 font-semibold text-accent hover:underline"
        onClick={() => void back()}
      >
        {words.shelf.back}
      </button>
    </p>
  );
}
