import { toast } from 'sonner';
import { FileButton } from '../../shared/controls/FileButton.tsx';
import { RemoveButton } from '../../shared/controls/RemoveButton.tsx';
import { SectionTitle } from '../../shared/controls/Controls.tsx';
import { bytesOfFile } from '../../shared/files/file-bytes.ts';
import { tellNotTaken } from '../../shared/page/notify.ts';
import * as words from '../../words/en.ts';
import { addCalendar, removeCalendar } from '../../workspace/commands/week.ts';
import type { BusyCalendar } from '../../workspace/state/week.ts';
import { useWorkspace } from '../../workspace/use-workspace.ts';

/** So many bad events are named. */
const FAULTS_SHOWN = 5;

/** Calendar files whose times are kept free of work. */
export function Calendars({ calendars }: { calendars: readonly BusyCalendar[] }) {
  const workspace = useWorkspace();
  const add = async (file: File) => {
    const bytes = await bytesOfFile(file);
    if (typeof bytes === 'string') toast.error(bytes);
    else await addCalendar(workspace, file.name, bytes).catch(tellNotTaken);
  };
  return (
    <section>
      <SectionTitle>{words.week.calendars}</SectionTitle>
      <p className="text-sm text-quiet">{words.week.calendarsLead}</p>
      <ul className="mt-1">
        {calendars.map(({ file, read }) => (
          <li key={file.hash} className="border-t border-rule py-2 text-sm">
            <div className="flex items-start justify-between gap-2">
              <b className="min-w-0 break-words">{file.name}</b>
              <RemoveButton
                label={words.week.removeCalendar(file.name)}
                onClick={() => void removeCalendar(workspace, file)}
              />
            </div>
            <CalendarTold read={read} name={file.name} />
          </li>
        ))}
      </ul>
      <FileButton
        label={words.week.addCalendar}
        accept=".ics,text/calendar"
        onFile={(file) => void add(file)}
        className="mt-1"
      />
    </section>
  );
}

function CalendarTold({ read, name }: { read: BusyCalendar['read']; name: string }) {
  if (read === null) return <p className="text-quiet">{words.week.reading}</p>;
  if (read.kind === 'unreadable')
    return <p role="alert">{words.unreadable[read.reason](name, read.detail)}</p>;
  const { events, spans, wholeDays, faults } = read.value;
  return (
    <>
      <p className="text-quiet">{words.week.calendarRead(events, spans.length)}</p>
      {wholeDays > 0 && <p className="text-quiet">{words.week.wholeDays(wholeDays)}</p>}
      {faults.length > 0 && (
        <>
          <p className="mt-1 font-semibold">{words.week.faults(faults.length)}</p>
          <ul className="list-disc pl-4">
            {faults.slice(0, FAULTS_SHOWN).map(({ event, problem, detail }, index) => (
              <li key={index}>{words.week.fault[problem](event, detail)}</li>
            ))}
          </ul>
          {faults.length > FAULTS_SHOWN && <p>{words.week.moreFaults(faults.length - FAULTS_SHOWN)}</p>}
        </>
      )}
    </>
  );
}
