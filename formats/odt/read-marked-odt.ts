import { refusedAs } from '../malformed.ts';
import { instantOfIso } from '../dates.ts';
import { isMachine } from '../machine.ts';
import type { Mark, MarkedPaper } from '../marked-paper.ts';
import { marksOfChanges, targetOfSpan, type TextStyle, type WrittenText } from '../text/layout-writer.ts';
import { repliesTo } from '../threads.ts';
import { MOST_FILE_BYTES, UnreadableFile } from '../unreadable.ts';
import { textOfPart } from '../xml/parse-xml.ts';
import { readZip } from '../zip/read-zip.ts';
import { readChanges } from './changes.ts';
import { readLooks, readSetOff } from './looks.ts';
import { writeDocument, type OdtAnnotation, type Parts } from './write-document.ts';

/**
 * Reads an OpenDocument text (.odt, ODF 1.3): its text with headings, lists, tables, pictures and footnotes; its
 * annotations with the exact words they are about, their answers and whether they are resolved; its tracked changes.
 * @throws UnreadableFile
 */
export function readMarkedOdt(bytes: Uint8Array): MarkedPaper {
  if (bytes.length === 0) throw new UnreadableFile('empty');
  if (bytes.length > MOST_FILE_BYTES) throw new UnreadableFile('too large');
  if (bytes[0] !== 0x50 || bytes[1] !== 0x4b) throw new UnreadableFile('not an OpenDocument text');
  const parts = unpack(bytes);
  const content = parts['content.xml'] as Uint8Array | undefined;
  if (content === undefined) throw new UnreadableFile('not an OpenDocument text');
  const styles = parts['styles.xml'] as Uint8Array | undefined;
  return refusedAs('damaged OpenDocument text', () =>
    paperOfXml(textOfPart(content), styles === undefined ? null : textOfPart(styles), parts),
  );
}

/**
 * Reads a flat OpenDocument text (.fodt): the same in one XML file, pictures among it.
 * @throws UnreadableFile
 */
export function readMarkedFodt(bytes: Uint8Array): MarkedPaper {
  if (bytes.length > MOST_FILE_BYTES) throw new UnreadableFile('too large');
  return refusedAs('damaged OpenDocument text', () => paperOfXml(textOfPart(bytes), null, {}));
}

function paperOfXml(xml: string, styles: string | null, parts: Parts): MarkedPaper {
  const looks = new Map<string, TextStyle>();
  const setOff = new Set<string>();
  for (const part of styles === null ? [xml] : [styles, xml]) {
    readLooks(part, looks);
    readSetOff(part, setOff);
  }
  const { written, annotations } = writeDocument(xml, { looks, setOff }, readChanges(xml), parts);
  const marks = [...annotationMarks(written, annotations), ...marksOfChanges(written)];
  marks.sort((x, y) => x.at - y.at);
  return {
    kind: 'odt',
    pages: [],
    pageStarts: [],
    paper: written.paper,
    layout: written.layout,
    marks: marks.map(({ mark }) => mark),
    unknownKinds: [],
    attached: [],
  };
}

function unpack(bytes: Uint8Array): Parts {
  return refusedAs('damaged OpenDocument text', () =>
    readZip(bytes, (name) => /^(content|styles)\.xml$|^Pictures\/[^/]+$/.test(name)),
  );
}

function annotationMarks(
  written: WrittenText,
  annotations: readonly OdtAnnotation[],
): { mark: Mark; at: number }[] {
  const byId = new Map(annotations.map((annotation) => [annotation.id, annotation]));
  const isAnswer = (annotation: OdtAnnotation) => {
    const seen = new Set<string>();
    for (let at: OdtAnnotation | undefined = annotation; at !== undefined; at = byId.get(at.parent ?? '')) {
      if (seen.has(at.id)) return false;
      seen.add(at.id);
    }
    return byId.has(annotation.parent ?? '');
  };
  const textOf = ({ paragraphs }: OdtAnnotation) => paragraphs.join('\n').trim();
  const answers = annotations.filter(isAnswer).map((annotation) => ({
    id: annotation.id,
    answers: annotation.parent ?? '',
    author: annotation.author,
    at: instantOfIso(annotation.date),
    text: textOf(annotation),
  }));
  return annotations
    .filter((annotation) => !isAnswer(annotation))
    .map((annotation) => {
      const { target, anchor } = targetOfSpan(written, annotation);
      return {
        at: annotation.from,
        mark: {
          sourceId: annotation.id,
          kind: 'comment',
          author: annotation.author,
          byMachine: isMachine(annotation.author),
          at: instantOfIso(annotation.date),
          color: null,
          text: textOf(annotation),
          subject: null,
          targets: [target],
          anchor,
          replies: repliesTo(annotation.id, answers),
          state: annotation.resolved ? 'resolved' : null,
          change: null,
        },
      };
    });
}
