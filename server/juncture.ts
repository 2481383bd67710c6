import { parseArgs } from 'node:util';
import { UnreadableFile, type UnreadableReason } from '#formats/unreadable.ts';
import { UnreadableCourse } from '#formats/course/read-course.ts';
import { checkOf } from './check.ts';
import { AtFile, compare, follow } from './follow.ts';
import { exportMarked, UnknownExport } from './export.ts';
import { grade } from './grade.ts';
import { inspect } from './inspect.ts';
import { overlapOfFiles, UnusableOption } from './overlap.ts';
import { plan, UnreadablePlan } from './plan.ts';
import { sayings, UnreadableRemarks } from './says.ts';

/** The command line: see docs/command-line.md. */

const USAGE = `usage: juncture inspect FILE [--text] [--onto PAPER] [--password WORD]
       juncture grade FILE.json
       juncture says FILE.json
       juncture compare OLD NEW
       juncture follow OLD NEW REMARKS
       juncture plan FILE.json
       juncture check DRAFT [--brief FILE] [--style STYLE] [--marked FILE]
       juncture overlap DRAFT SOURCE... [--min-words N] [--about FILE.json]
       juncture export FILE [--remarks FILE] [--password WORD] OUT`;

const SENTENCES: Readonly<Record<UnreadableReason, string>> = {
  empty: 'the file is empty',
  'too large': 'the file is larger than 300 MB, or its text larger than is read',
  'too many pages': 'it has more than 2,000 pages; split it',
  'not a PDF': 'it is not a PDF',
  'damaged PDF': 'the PDF is damaged; save it again where it came from',
  'locked PDF': 'the PDF is locked; give its password with --password, or save a copy without one',
  'wrong password': 'that is not the password of this PDF',
  'not a Word file': 'it is not a Word file (.docx)',
  'damaged Word file': 'the Word file is damaged; save it again as .docx',
  'not an OpenDocument text': 'it is not an OpenDocument text (.odt)',
  'damaged OpenDocument text': 'the OpenDocument text is damaged; save it again as .odt',
  'damaged remarks': 'the file of remarks is damaged',
  'no remarks': 'there are no remarks in it',
  'damaged quiz': 'the quiz results are damaged',
  'damaged posts': 'the posts are damaged',
  'damaged picture': 'the picture is damaged',
  'HEIC picture': 'pictures of kind HEIC are not read; save it as JPEG or PNG',
  'unknown picture': 'pictures of this kind are not read; save it as PNG or JPEG',
  'unknown recording': 'recordings of this kind are not played; save it as MP3, M4A or WAV',
  'unknown quiz': 'it holds a quiz without results; ask for its results (QTI assessmentResult)',
  slides: 'slides are not read; save them as PDF',
  'a table of figures': 'spreadsheets are not read; save it as CSV or PDF',
  'unknown kind': 'it is of no kind that is read; save it as PDF',
  'no page to place on': 'these remarks belong on a PDF; name it with --onto',
  'no rubric': 'there is no table of criteria in it',
  'no scores': 'there are no scores in it',
  'not a calendar': 'it is not a calendar (.ics)',
  'not a backup': 'it is not a saved workspace',
  'damaged backup': 'the saved workspace is damaged',
  'newer backup': 'the saved workspace is from a newer Juncture',
  fault: 'it brought out a fault of Juncture’s own',
  'no text': 'there is no text in it; a scanned page is a picture of words',
  'damaged references': 'its references can’t be read; save it again as BibTeX or CSL-JSON',
  'no references': 'there are no references in it',
  'archive too large': 'the archive expands to more than can be read safely',
};

function sentenceFor(error: unknown): string {
  if (error instanceof UnreadableFile) return SENTENCES[error.reason];
  if (
    error instanceof UnreadableCourse ||
    error instanceof UnreadableRemarks ||
    error instanceof UnreadablePlan ||
    error instanceof UnknownExport ||
    error instanceof UnusableOption
  )
    return error.message;
  if (error instanceof Error && 'code' in error)
    return error.code === 'ENOENT' ? 'there is no such file' : `it can’t be opened (${String(error.code)})`;
  throw error;
}

/** null for an option that there is none of, or that lacks its value; what is wrong is said. */
function argumentsGiven() {
  try {
    return parseArgs({
      allowPositionals: true,
      options: {
        text: { type: 'boolean', default: false },
        onto: { type: 'string' },
        remarks: { type: 'string' },
        password: { type: 'string' },
        'min-words': { type: 'string' },
        about: { type: 'string' },
        brief: { type: 'string' },
        style: { type: 'string' },
        marked: { type: 'string' },
      },
    });
  } catch (error) {
    if (!(error instanceof Error && 'code' in error && String(error.code).startsWith('ERR_PARSE_ARGS')))
      throw error;
    console.error(error.message.split('. ')[0]);
    return null;
  }
}

/** How many files each command takes; more where it takes any number of them. */
const FILES: Readonly<Record<string, number | 'two and more'>> = {
  check: 1,
  overlap: 'two and more',
  inspect: 1,
  grade: 1,
  says: 1,
  compare: 2,
  follow: 3,
  plan: 1,
  export: 2,
};

interface Options {
  readonly text: boolean;
  readonly onto: string | null;
  readonly remarks: string | null;
  readonly password: string | null;
  readonly minWords: string | null;
  readonly about: string | null;
  readonly brief: string | null;
  readonly style: string | null;
  readonly marked: string | null;
}

/** What a command prints. */
async function outputOf(command: string, files: readonly string[], options: Options): Promise<unknown> {
  const [first, second = '', third = ''] = files;
  switch (command) {
    case 'grade': {
      const { result, oddities } = await grade(first);
      for (const oddity of oddities) console.error(`${first}: ${oddity}`);
      return result;
    }
    case 'says':
      return sayings(first);
    case 'compare':
      return compare(first, second);
    case 'follow':
      return follow(first, second, third);
    case 'check':
      return checkOf(first, options);
    case 'overlap': {
      const { overlap, leftOut } = await overlapOfFiles(first, files.slice(1), options);
      for (const { path, why } of leftOut) console.error(`${path}: ${sentenceFor(why)}; it is left out`);
      return overlap;
    }
    case 'plan':
      return plan(first);
    case 'export': {
      const { remarks: remarksFile, password } = options;
      return exportMarked(first, { remarksFile, password, now: new Date() }, second);
    }
    default:
      return inspect(first, options);
  }
}

async function run(): Promise<number> {
  const given = argumentsGiven();
  if (given === null) {
    console.error(USAGE);
    return 2;
  }
  const { values, positionals } = given;
  const [command = '', ...files] = positionals;
  const wanted = Object.hasOwn(FILES, command) ? FILES[command] : null;
  const areEnough = wanted === 'two and more' ? files.length >= 2 : files.length === wanted;
  if (!areEnough || files.includes('')) {
    console.error(USAGE);
    return 2;
  }
  try {
    const output = await outputOf(command, files, {
      text: values.text,
      onto: values.onto ?? null,
      remarks: values.remarks ?? null,
      password: values.password ?? null,
      minWords: values['min-words'] ?? null,
      about: values.about ?? null,
      brief: values.brief ?? null,
      style: values.style ?? null,
      marked: values.marked ?? null,
    });
    process.stdout.write(`${JSON.stringify(output, null, 2)}\n`);
    return 0;
  } catch (error) {
    const [path, cause] = error instanceof AtFile ? [error.path, error.cause] : [files[0], error];
    console.error(`${path}: ${sentenceFor(cause)}`);
    return 1;
  }
}

process.exitCode = await run();
