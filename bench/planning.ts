/** D1: the best tasks for the time there is, beside npm highs and npm yalps; and what each amount of time buys. */
import { choose, curveOf } from '#core/plan/choose.ts';
import type { Choosable } from '#core/plan/problem.ts';
import { termOf } from '#core/plan/testing/term.ts';
import { row } from './measure.ts';
import { peer } from './peers.ts';

const INSTANCES = 200;

/** The same as a mixed integer program: by each deadline, what is due by then fits. */
function rowsOf(tasks: readonly Choosable[], minutes: number) {
  const deadlines = [...new Set(tasks.map(({ due }) => due ?? Infinity))].filter((due) => due < minutes);
  return [
    ...deadlines.map((due) => ({ of: tasks.filter((one) => (one.due ?? Infinity) <= due), most: due })),
    { of: tasks, most: minutes },
  ];
}

interface Highs {
  solve(program: string, options: object): { readonly Status: string; readonly ObjectiveValue: number };
}
const { default: loadHighs } = await peer<{ default: (options: object) => Promise<Highs> }>('highs@1.15.3');
const highs = await loadHighs({});
const { solve: solveYalps } = await peer<{ solve: (model: object) => { status: string; result: number } }>(
  'yalps@0.6.4',
);

function byHighs(tasks: readonly Choosable[], minutes: number): number {
  const sum = (of: readonly Choosable[], by: (one: Choosable) => number) =>
    of.map((one) => `${by(one)} ${one.id}`).join(' + ');
  const program = [
    'Maximize',
    ` gain: ${sum(tasks, ({ gain }) => gain)}`,
    'Subject To',
    ...rowsOf(tasks, minutes).map(({ of, most }, n) => ` m${n}: ${sum(of, (one) => one.minutes)} <= ${most}`),
    ...tasks.flatMap(({ id, needs }) => needs.map((needed) => ` n_${id}_${needed}: ${id} - ${needed} <= 0`)),
    'Binary',
    ` ${tasks.map(({ id }) => id).join(' ')}`,
    'End',
  ].join('\n');
  return highs.solve(program, { mip_rel_gap: 0, mip_abs_gap: 0 }).ObjectiveValue;
}

function byYalps(tasks: readonly Choosable[], minutes: number): number {
  const rows = rowsOf(tasks, minutes);
  const constraints: Record<string, object> = {};
  for (const [n, { most }] of rows.entries()) constraints[`m${n}`] = { max: most };
  for (const { id, needs } of tasks)
    for (const needed of needs) constraints[`n_${id}_${needed}`] = { max: 0 };
  const variables: Record<string, Record<string, number>> = {};
  for (const one of tasks) {
    const own: Record<string, number> = { gain: one.gain };
    for (const [n, { of }] of rows.entries()) if (of.includes(one)) own[`m${n}`] = one.minutes;
    for (const needed of one.needs) own[`n_${one.id}_${needed}`] = 1;
    for (const other of tasks) if (other.needs.includes(one.id)) own[`n_${other.id}_${one.id}`] = -1;
    variables[one.id] = own;
  }
  const { result } = solveYalps({
    direction: 'maximize',
    objective: 'gain',
    constraints,
    variables,
    binaries: true,
  });
  return result;
}

function quantile(times: readonly number[], share: number): number {
  return times.toSorted((x, y) => x - y)[Math.min(times.length - 1, Math.floor(times.length * share))];
}

console.log(
  'D1  60 tasks, 600 minutes, needs and deadlines; bars: the same as highs on 200, p95 of yalps and a quarter of highs',
);
{
  const times = { own: [] as number[], highs: [] as number[], yalps: [] as number[] };
  const timed = <T>(into: number[], work: () => T): T => {
    const startedAt = performance.now();
    const result = work();
    into.push(performance.now() - startedAt);
    return result;
  };
  let same = 0;
  let proven = 0;
  choose(termOf(0, 60), 600);
  for (let seed = 1; seed <= INSTANCES; seed++) {
    const tasks = termOf(seed, 60);
    const own = timed(times.own, () => choose(tasks, 600));
    const other = timed(times.highs, () => byHighs(tasks, 600));
    timed(times.yalps, () => byYalps(tasks, 600));
    if (Math.abs(own.gain - other) < 1e-6) same++;
    if (own.gain === own.bound) proven++;
  }
  for (const [name, of] of Object.entries(times))
    console.log(row(name, { median: quantile(of, 0.5), p95: quantile(of, 0.95), most: quantile(of, 1) }));
  console.log(
    row('', { 'the same as highs': `${same} of ${INSTANCES}`, proven: `${proven} of ${INSTANCES}` }),
  );
}
{
  const times: number[] = [];
  const curves: number[] = [];
  let proven = 0;
  for (let seed = 1; seed <= 20; seed++) {
    const tasks = termOf(1000 + seed, 150);
    const startedAt = performance.now();
    const { gain, bound } = choose(tasks, 600);
    times.push(performance.now() - startedAt);
    if (gain === bound) proven++;
    const beganAt = performance.now();
    curveOf(termOf(1000 + seed, 60), 600);
    curves.push(performance.now() - beganAt);
  }
  console.log('150 tasks; bar: proven or with their bound within 200 ms');
  console.log(row('', { median: quantile(times, 0.5), most: quantile(times, 1), proven: `${proven} of 20` }));
  console.log(
    row('curve of 60 tasks over 600 minutes', { median: quantile(curves, 0.5), most: quantile(curves, 1) }),
  );
}
