import { Fold } from '../../shared/controls/Fold.tsx';
import { useWorkspace, useWorkspaceState } from '../../workspace/use-workspace.ts';
import { useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import {
  gradeFields,
  type CourseOfTable,
  type GradeField,
  type GradeTable,
} from '#formats/grades/grade-table.ts';
import type { ImportedCourse, ImportProblem } from '#formats/grades/imported.ts';
import type { ReadGrades } from '#formats/grades/read-grades.ts';
import { coursesOfGradebook, type Gradebook } from '#formats/oneroster/read-gradebook.ts';
import { Button, SectionTitle } from '../../shared/controls/Controls.tsx';
import { SelectField, TextField } from '../../shared/controls/Field.tsx';
import { PasteTable } from '../../shared/controls/PasteTable.tsx';
import { usePlaceTitle } from '../../shared/page/place-title.ts';
import { shownMoment } from '../../shared/shown/shown.ts';
import { ownZone } from '../../shared/shown/own-zone.ts';
import * as words from '../../words/en.ts';
import type { ReadResult } from '../../workers/protocol.ts';
import { tables } from '../../workers/clients.ts';
import { takeInGrades } from '../../workspace/commands/take-in-grades.ts';
import { courseAddress } from '../../shared/page/addresses.ts';
const said = words.standing.takeInForm;
/** A preview, not a list to go through. */
const ROWS_SHOWN = 8;
const PROBLEMS_SHOWN = 20;

/** Scores out of a file or a pasted table: read, matched, looked through, and then taken in as one. */
export function TakeInGrades() {
  usePlaceTitle(said.title);
  const [text, setText] = useState('');
  const [found, setFound] = useState<{ grades: ReadGrades; name: string; key: number } | null>(null);
  const [wrong, setWrong] = useState('');
  const show = (result: ReadResult<ReadGrades | null>, name: string) => {
    const grades = result.kind === 'read' ? result.value : null;
    setFound(grades === null ? null : { grades, name, key: Date.now() });
    setWrong(
      result.kind === 'unreadable'
        ? words.unreadable[result.reason](name, result.detail)
        : grades === null
          ? said.nothing
          : '',
    );
  };
  const readFiles = async (files: File[]) => {
    const read = await Promise.all(
      files.map(async (file) => ({ name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) })),
    );
    show(await tables.ask((worker) => worker.readGrades(read)), files.map(({ name }) => name).join(', '));
  };
  const readPasted = async (pasted: { html: string; text: string }) => {
    const result = await tables.ask((worker) => worker.pasteGrades(pasted));
    show(
      result.kind === 'read' && result.value !== null
        ? { kind: 'read', value: { kind: 'table', table: result.value } }
        : result.kind === 'read'
          ? { kind: 'read', value: null }
          : result,
      said.pasteLabel,
    );
  };
  return (
    <div className="mx-auto grid max-w-4xl gap-7 p-6 max-md:p-4">
      <header>
        <h1 className="font-serif text-2xl font-semibold">{said.title}</h1>
        <p className="mt-1 text-quiet">{said.lead}</p>
      </header>
      <PasteTable
        label={said.pasteLabel}
        placeholder={said.example}
        text={text}
        onText={setText}
        onPasted={(pasted) => void readPasted(pasted)}
        read={said.read}
        choose={said.choose}
        accept=".csv,.tsv,.txt,.json,.zip,.html"
        several
        onFiles={(files) => void readFiles(files)}
      />
      {wrong !== '' && (
        <p role="alert" className="font-semibold">
          {wrong}
        </p>
      )}
      {found?.grades.kind === 'table' && (
        <Matching key={found.key} table={found.grades.table} name={found.name} />
      )}
      {found?.grades.kind === 'gradebook' && (
        <FromGradebook key={found.key} gradebook={found.grades.gradebook} />
      )}
    </div>
  );
}

/** A plain table: what each of its columns is. */
function Matching({ table, name }: { table: GradeTable; name: string }) {
  const [fields, setFields] = useState(table.fields);
  const [read, setRead] = useState<CourseOfTable | null>(null);
  const zone = ownZone();
  useEffect(() => {
    let over = false;
    void tables
      .ask((worker) => worker.courseOfTable(table, fields, zone))
      .then((course) => {
        if (!over) setRead(course);
      });
    return () => {
      over = true;
    };
  }, [table, fields, zone]);
  const titled = fields.includes('title');
  const set = (column: number, field: GradeField) =>
    // A column is one thing, and each thing stands in one column.
    setFields(
      fields.map((each, i) =>
        i === column ? field : each === field && field !== 'left out' ? 'left out' : each,
      ),
    );
  return (
    <>
      <section>
        <SectionTitle>{said.match}</SectionTitle>
        <p className="mt-1 text-quiet">{said.matchLead}</p>
        <div className="mt-3 grid grid-cols-2 gap-3 sm:grid-cols-4">
          {table.header.map((column, i) => (
            <SelectField
              key={i}
              label={said.column(column === '' ? String(i + 1) : column)}
              hint={table.rows
                .map((row) => row[i])
                .find((cell) => cell !== '')
                ?.slice(0, 40)}
              value={fields[i]}
              options={gradeFields.map((field) => [field, said.fields[field]])}
              onChange={(next) => {
                const field = gradeFields.find((one) => one === next);
                if (field !== undefined) set(i, field);
              }}
            />
          ))}
        </div>
        {!titled && (
          <p role="alert" className="mt-2 font-semibold">
            {said.titleWanted}
          </p>
        )}
      </section>
      {titled && read !== null && (
        <TakingIn
          course={read.course}
          problems={read.problems}
          title={name.replace(/\.\w+$/, '')}
          zone={zone}
        />
      )}
    </>
  );
}

/** A gradebook: whose results, and which course. */
function FromGradebook({ gradebook }: { gradebook: Gradebook }) {
  const [student, setStudent] = useState(gradebook.students.at(0) ?? null);
  const courses = useMemo(() => coursesOfGradebook(gradebook, student), [gradebook, student]);
  const [key, setKey] = useState(courses.at(0)?.key ?? '');
  const course = courses.find((one) => one.key === key) ?? courses.at(0);
  return (
    <>
      <div className="grid gap-3 sm:grid-cols-2">
        {gradebook.students.length > 1 && (
          <SelectField
            label={said.student}
            value={student ?? ''}
            options={gradebook.students.map((id) => [id, id])}
            onChange={setStudent}
          />
        )}
        {courses.length > 1 && (
          <SelectField
            label={said.which}
            value={course?.key ?? ''}
            options={courses.map((one) => [one.key, one.title])}
            onChange={setKey}
          />
        )}
      </div>
      {course !== undefined && (
        <TakingIn
          key={course.key}
          course={course}
          problems={gradebook.problems}
          title={course.title}
          zone={ownZone()}
        />
      )}
    </>
  );
}

const NEW = '';

/** What was read, to be looked through, and where it goes. */
function TakingIn({
  course,
  problems,
  title: proposed,
  zone,
}: {
  course: ImportedCourse;
  problems: readonly ImportProblem[];
  title: string;
  zone: string;
}) {
  const workspace = useWorkspace();
  const all = useWorkspaceState((state) => state.records.courses);
  const own = [...all.values()].filter(({ byHand }) => byHand);
  const [into, setInto] = useState(own.find(({ title }) => title === proposed)?.id ?? NEW);
  const [title, setTitle] = useState(proposed);
  const [busy, setBusy] = useState(false);
  const navigate = useNavigate();
  const { items } = course;
  const keep = async () => {
    setBusy(true);
    try {
      const target = own.find(({ id }) => id === into) ?? null;
      const id = await takeInGrades(
        workspace,
        { ...course, title: title.trim() },
        target,
        proposed,
        target?.zone ?? zone,
      );
      toast(said.taken(items.length));
      await navigate(courseAddress(id));
    } finally {
      setBusy(false);
    }
  };
  return (
    <section>
      <p role="status" className="font-semibold">
        {said.preview(
          items.length,
          items.filter(({ score, result }) => score !== null || result !== null).length,
        )}
      </p>
      <Problems problems={problems} />
      <ul className="mt-2 text-sm">
        {items.slice(0, ROWS_SHOWN).map((item) => (
          <li
            key={item.key}
            className="grid grid-cols-[minmax(0,1fr)_auto] gap-x-4 border-t border-rule py-1.5 sm:grid-cols-[minmax(0,1fr)_10rem_8rem_10rem]"
          >
            <b className="min-w-0 truncate">{item.title}</b>
            <span className="text-quiet max-sm:hidden">
              {course.categories.find(({ key }) => key === item.category)?.title}
            </span>
            <span>
              {item.excused
                ? words.standing.counting.excused
                : `${item.score ?? item.result ?? '–'}${item.possible === null ? '' : ` / ${item.possible}`}`}
            </span>
            <span className="text-quiet max-sm:hidden">
              {item.dueAt === null ? '' : shownMoment(item.dueAt, zone)}
            </span>
          </li>
        ))}
      </ul>
      {items.length > ROWS_SHOWN && (
        <p className="border-t border-rule py-1.5 text-sm text-quiet">
          {said.more(items.length - ROWS_SHOWN)}
        </p>
      )}
      <div className="mt-4 grid items-end gap-3 sm:grid-cols-2">
        <SelectField
          label={said.into}
          value={into}
          options={[[NEW, said.newCourse], ...own.map((one) => [one.id, one.title] as const)]}
          onChange={setInto}
        />
        {into === NEW && (
          <TextField
            label={said.courseTitle}
            value={title}
            error={title.trim() === '' ? words.standing.form.titleWanted : undefined}
            onChange={(event) => setTitle(event.target.value)}
          />
        )}
      </div>
      <div className="mt-4">
        <Button
          look="main"
          disabled={busy || items.length === 0 || (into === NEW && title.trim() === '')}
          onClick={() => void keep()}
        >
          {busy ? said.taking : said.keep(items.length)}
        </Button>
      </div>
    </section>
  );
}

function Problems({ problems }: { problems: readonly ImportProblem[] }) {
  if (problems.length === 0) return null;
  return (
    <Fold
      defaultOpen={problems.length <= 5}
      className="mt-2 border-l-2 border-rule-strong pl-3 text-sm"
      label={said.problems(problems.length)}
      labelClass="font-semibold"
    >
      <ul className="mt-1 grid gap-0.5 text-quiet">
        {problems.slice(0, PROBLEMS_SHOWN).map(({ kind, where, said: what }, i) => (
          <li key={i}>{said.problem[kind](where, what)}</li>
        ))}
        {problems.length > PROBLEMS_SHOWN && <li>{said.more(problems.length - PROBLEMS_SHOWN)}</li>}
      </ul>
    </Fold>
  );
}
