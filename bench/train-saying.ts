/**
 * Learns what remarks say from the voices in core/saying/training and writes the model; prints how well voices are read that
 * it did not learn from. `--measure` only prints; `--wrong` prints what was read wrongly too; `--tasks N` prints N tasks that come of remarks of voices left out; `--groups N` leaves out N groups of voices in turn, not one voice at a time.
 */
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { gzipSync } from 'node:zlib';
import { encodeModel } from '#core/saying/model.ts';
import { temperatureOf, thresholdsOf } from '#core/saying/training/calibrate.ts';
import { judgedByOthers, measured, PLAIN, shown, stanceLabelled } from '#core/saying/training/measure.ts';
import { taskFor } from '#core/saying/task-wording.ts';
import { seeded } from '#core/saying/training/seeded.ts';
import { learn } from '#core/saying/training/train.ts';
import { readVoice, textOf, type LabelledRemark } from '#core/saying/training/voices.ts';

const FOLDER = 'core/saying/training/voices';
const MODEL = 'core/saying/saying.model';
/** How many remarks the learning curve is drawn at, before all. */
const CURVE = [500, 1000, 2000, 4000];
/** Groups of voices for the curve: it shows what more remarks bring, not the last hundredth. */
const CURVE_GROUPS = 8;

const { values } = parseArgs({
  options: {
    measure: { type: 'boolean' },
    groups: { type: 'string' },
    wrong: { type: 'boolean' },
    tasks: { type: 'string' },
  },
});
const remarks = readdirSync(FOLDER)
  .filter((name) => name.endsWith('.txt'))
  .sort()
  .flatMap((name) => readVoice(name.replace('.txt', ''), readFileSync(join(FOLDER, name), 'utf8')));
const voices = new Set(remarks.map(({ voice }) => voice)).size;
const groups = values.groups === undefined ? voices : Number(values.groups);
console.log(`${remarks.length} remarks in ${voices} voices; left out: ${groups} groups of voices in turn`);

const temperature = temperatureOf(judgedByOthers(remarks, CURVE_GROUPS));
const told = judgedByOthers(remarks, groups, { ...PLAIN, temperature });
const calibration = { ...PLAIN, temperature, ...thresholdsOf(told) };
console.log(`found on them: ${JSON.stringify(calibration)}`);
const judged = judgedByOthers(remarks, groups, calibration);
console.log(shown('voices left out', measured(judged)));
if (values.wrong === true)
  for (const { remark, saying } of judged) {
    const promise = remark.parts.find((part) => part.promise !== null)?.promise ?? null;
    if (stanceLabelled(remark) !== saying.stance || promise !== saying.promise)
      console.log(
        `${stanceLabelled(remark)}/${String(promise)} read as ${saying.stance}/${String(saying.promise)}: ${textOf(remark)}`,
      );
  }
if (values.tasks !== undefined) {
  const called = judged.filter(({ saying }) => saying.callsForChange);
  seeded(3).shuffle(called);
  for (const { remark, saying } of called.slice(0, Number(values.tasks)))
    console.log(`task: ${String(taskFor(textOf(remark), saying))} <= ${textOf(remark)}`);
}
console.log(
  shown('of those that say several things', measured(judged.filter(({ remark }) => remark.parts.length > 1))),
);
const sure = judged.filter(({ saying }) => saying.sure);
console.log(`said without a “perhaps”: ${((100 * sure.length) / judged.length).toFixed(0)} %`);
console.log(shown('of those', measured(sure)));

console.log('learning curve, macro F1 and whether a change is called for:');
for (const size of [...CURVE, remarks.length]) {
  const figures = measured(judgedByOthers(someOf(remarks, size), CURVE_GROUPS, calibration));
  console.log(
    `${String(size).padStart(6)}   ${figures.macroF1.toFixed(3)}   ${figures.callsForChange.toFixed(3)}`,
  );
}

const { callsFrom, promisesFrom, sureFrom } = calibration;
const bytes = encodeModel({ ...learn(remarks, temperature), callsFrom, promisesFrom, sureFrom });
console.log(`model: ${bytes.length} bytes, ${gzipSync(bytes).length} as it travels (gzip)`);
if (values.measure !== true) writeFileSync(MODEL, bytes);

function someOf(all: readonly LabelledRemark[], size: number): LabelledRemark[] {
  const order = [...all];
  seeded(2).shuffle(order);
  return order.slice(0, size);
}
