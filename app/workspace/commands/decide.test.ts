import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { recordsIn } from '#core/assignment/records.ts';
import { viewOf, type AssignmentView } from '#core/assignment/view.ts';
import {
  exampleAssignment,
  exampleAttempt,
  exampleCourse,
  exampleMarking,
  exampleRemark,
  exampleRubric,
} from '#core/model/example.ts';
import { decisions } from '#core/model/work.ts';
import { exampleSaying } from '#core/saying/example.ts';
import { partsOf } from '#core/saying/remark-parts.ts';
import { sayingKey } from '#core/saying/saying-of.ts';
import type { Saying } from '#core/saying/saying.ts';
import { openWorkspace, type Workspace } from '../workspace.ts';
import {
  carryPart,
  cutParts,
  decidePart,
  decideRemark,
  noteOnRemark,
  replyToRemark,
  setPartStance,
  setStance,
  toggleCarry,
} from './decide.ts';

let workspace: Workspace;
let run = 0;
const text = 'Lovely opening. The second claim has no source. Next time number the tables.';
const opening = text.indexOf('Lovely');
const claim = text.indexOf('The second');
const tables = text.indexOf('Next time');
const remark = exampleRemark({ id: 'r', attemptId: 't', criterionId: 'c-1', text });
const others = [
  exampleRemark({ id: 'x', attemptId: 't', criterionId: 'c-1', text: 'Cite this?' }),
  exampleRemark({ id: 'y', attemptId: 't', criterionId: 'c-1', text: 'Which of them?' }),
  exampleRemark({ id: 'z', attemptId: 't', criterionId: 'c-1', text: 'By whom?' }),
];

function saying(given: readonly (readonly [number, number, Saying['stance']])[]): Saying {
  const [part] = exampleSaying('note').parts;
  const parts = given.map(([from, to, stance]) => ({
    ...part,
    from,
    to,
    stance,
    likely: { ...part.likely, note: 0, question: 0.3, [stance]: 0.7 },
  }));
  const weightiest = given.find(([, , stance]) => stance === 'fix')?.[2] ?? given[0][2];
  return { ...exampleSaying(weightiest), sure: false, confidence: 0.7, parts };
}

beforeEach(async () => {
  const identity = {
    kind: 'student',
    deskId: 'decide',
    studentId: String(run++),
    studentName: 'Ines Tarrow',
  } as const;
  workspace = await openWorkspace(identity);
  await workspace.save(async (writing) => {
    await writing.put('assignments', exampleAssignment({ rubricId: 'r', possible: '8' }));
    await writing.put('rubrics', exampleRubric([{ id: 'c-1', title: 'Sources', possible: '8' }]));
    await writing.put('attempts', exampleAttempt({ id: 't' }));
    await writing.put(
      'markings',
      exampleMarking({
        attemptId: 't',
        score: '3',
        criteria: [{ criterionId: 'c-1', points: '3', level: null, comment: '' }],
      }),
    );
    for (const one of [remark, ...others]) await writing.put('remarks', one);
  });
  workspace.showSayings(
    new Map([
      [
        sayingKey(remark),
        saying([
          [opening, claim - 1, 'praise'],
          [claim, tables - 1, 'fix'],
          [tables, text.length, 'advice'],
        ]),
      ],
      ...others.map((one) => [sayingKey(one), saying([[0, one.text.length, 'fix']])] as const),
    ]),
  );
});
afterEach(() => workspace.close());

const records = () => workspace.records;
function view(): AssignmentView {
  const found = viewOf(recordsIn(records()), 'a', 0);
  if (found === null) throw new Error('no view');
  return found;
}
const titles = () => [...records().tasks.values()].map(({ title }) => title);
const shares = () => view().losses.map(({ shareByRemark, unexplained }) => [[...shareByRemark], unexplained]);

describe('deciding part by part', () => {
  it('makes tasks and questions of parts, and counts the parts', async () => {
    await decidePart(workspace, remark, claim, 'act');
    await decidePart(workspace, remark, opening, 'keep');
    expect(view().tally.decided).toBe(0);
    await carryPart(workspace, remark, tables);
    expect(titles()).toEqual(['Give the second claim a source']);
    expect(view().tally.decided).toBe(1);
    expect(view().countByDecision).toEqual({ act: 1, ask: 0, keep: 1, decline: 0, carry: 1 });
    const [task] = view().tasks;
    expect(task.behind).toBe(view().losses[0].shareByRemark.get('r'));
    await decidePart(workspace, remark, claim, 'ask');
    expect(titles()).toEqual([]);
    const [query] = records().queries.values();
    expect(query.about?.partId).toBe(partsOf(remark, view()).find(({ from }) => from === claim)?.id);
  });

  it('keeps for the other parts what was decided about the whole, and the whole wins when it is decided', async () => {
    await decideRemark(workspace, remark, 'act');
    await decidePart(workspace, remark, opening, 'keep');
    expect(partsOf(remark, view()).map(({ decision }) => decision)).toEqual(['keep', 'act', 'act']);
    expect(records().tasks.size).toBe(2);
    await decideRemark(workspace, remark, 'decline');
    expect(partsOf(remark, view()).map(({ decision }) => decision)).toEqual([null, null, null]);
    expect(records().tasks.size).toBe(0);
    await workspace.undoLast('a');
    expect(records().tasks.size).toBe(2);
    await workspace.undoLast('a');
    expect(partsOf(remark, view()).map(({ id }) => id)).toEqual([null, null, null]);
    expect(records().judgements.get('r')?.decision).toBe('act');
  });

  it('withdraws with the same decision again', async () => {
    await decidePart(workspace, remark, claim, 'act');
    await decidePart(workspace, remark, claim, 'act');
    expect([titles(), view().countByDecision.act]).toEqual([[], 0]);
  });

  it('keeps a note and a reply with a part, and asks by its note', async () => {
    await decidePart(workspace, remark, claim, 'ask');
    await noteOnRemark(workspace, remark, claim, 'Which source do you mean?');
    await replyToRemark(workspace, remark, opening, 'Thank you.');
    expect(partsOf(remark, view()).map(({ note, reply }) => [note, reply])).toEqual([
      ['', 'Thank you.'],
      ['Which source do you mean?', ''],
      ['', ''],
    ]);
    expect([...records().queries.values()].map((query) => query.text)).toEqual(['Which source do you mean?']);
  });

  it('splits and joins what is decided, with its task', async () => {
    const [one] = others;
    await decideRemark(workspace, one, 'act');
    const at = one.text.indexOf('this');
    await cutParts(workspace, one, at, ['fix', 'question']);
    await decidePart(workspace, one, at, 'ask');
    expect(partsOf(one, view()).map(({ stance, decision }) => [stance, decision])).toEqual([
      ['fix', 'act'],
      ['question', 'ask'],
    ]);
    expect([records().tasks.size, records().queries.size]).toEqual([1, 1]);
    await cutParts(workspace, one, at, ['fix', 'fix']);
    expect(partsOf(one, view()).map(({ decision }) => decision)).toEqual(['act']);
    expect([records().tasks.size, records().queries.size]).toEqual([1, 0]);
  });
});

describe('what is asked', () => {
  it('goes to the instructor where a machine or a report said it', async () => {
    await workspace.save((writing) => writing.put('courses', exampleCourse()));
    const machine = exampleRemark({ id: 'g', author: { name: 'Grammar checker', role: 'machine' } });
    const match = exampleRemark({
      id: 'o',
      channel: 'overlap',
      author: { name: 'Overlap service', role: 'instructor' },
    });
    for (const one of [machine, match, remark]) await decideRemark(workspace, one, 'ask');
    expect([...records().queries.values()].map(({ person }) => person)).toEqual(
      Array.from({ length: 3 }, () => 'Dr Aune Keld'),
    );
  });
});

describe('points behind remarks', () => {
  it('stay where they are with any sequence of decisions, add up exactly, and come back with undo', async () => {
    const ids = [remark, ...others];
    const step = fc.oneof(
      fc.record({ kind: fc.constantFrom(...decisions, 'carry' as const), of: fc.nat({ max: 3 }) }),
      fc.record({
        kind: fc.constant('part' as const),
        at: fc.constantFrom(opening, claim, tables),
        made: fc.constantFrom(...decisions),
      }),
      fc.record({ kind: fc.constant('carry part' as const), at: fc.constantFrom(opening, claim, tables) }),
    );
    const before = shares();
    await fc.assert(
      fc.asyncProperty(fc.array(step, { maxLength: 8 }), async (steps) => {
        for (const one of steps) {
          if (one.kind === 'part') await decidePart(workspace, remark, one.at, one.made);
          else if (one.kind === 'carry part') await carryPart(workspace, remark, one.at);
          else if (one.kind === 'carry') await toggleCarry(workspace, ids[one.of]);
          else await decideRemark(workspace, ids[one.of], one.kind);
          expect(shares()).toEqual(before);
          const [{ shareByRemark, unexplained, lost }] = view().losses;
          expect([...shareByRemark.values()].reduce((x, y) => x + y, 0) + unexplained).toBe(lost);
        }
        for (let n = 0; n < steps.length; n++) await workspace.undoLast('a');
        expect(shares()).toEqual(before);
        expect(records().tasks.size).toBe(0);
      }),
      { numRuns: 20 },
    );
  });

  it('move with what is put right, and are back with undo', async () => {
    const before = shares();
    await setPartStance(workspace, remark, claim, 'must-fix');
    expect(shares()).not.toEqual(before);
    await workspace.undoLast('a');
    expect(shares()).toEqual(before);
  });
});

describe('what is put right', () => {
  it('shows in the author’s other remarks from the second on, but not in what was decided; undone with it', async () => {
    const [x, y, z] = others;
    await decideRemark(workspace, remark, 'act');
    await setStance(workspace, x, 'question');
    expect(view().sayings.get('z')?.stance).toBe('fix');
    await setStance(workspace, y, 'question');
    expect(view().sayings.get(z.id)).toMatchObject({
      stance: 'question',
      because: { kind: 'put right', times: 2 },
    });
    expect(view().judgements.get('r')?.taken?.stance).toBe('fix');
    await workspace.undoLast('a');
    expect(view().sayings.get('z')?.stance).toBe('fix');
  });
});
