import { useWorkspace, useWorkspaceState } from '../../../workspace/use-workspace.ts';
import { useMemo, useState } from 'react';
import { placeOf, type Remark } from '#core/model/remark.ts';
import { Empty } from '../../../shared/controls/Controls.tsx';
import * as words from '../../../words/en.ts';
import type { AssignmentView } from '#core/assignment/view.ts';
import type { PaperFile } from '#core/assignment/papers.ts';
import { placeRemark } from '../../../workspace/commands/correct.ts';
import type { ReadPaper } from '../../../workspace/storage/records.ts';
import type { Region } from './DrawRegion.tsx';
import { useFileUrl } from '../../../shared/files/file-url.ts';
import type { TextState } from '#formats/layout-segments.ts';
import type { Finding } from './found-words.ts';
import { Loose } from '../slips/Loose.tsx';
import { PaperDesk, type Shown } from './PaperDesk.tsx';
import type { ReadingState } from '../reading-state.ts';
import { usePdfDocument } from '../../../shared/files/pdf-document.ts';

interface PaperMaterialProps {
  readonly view: AssignmentView;
  readonly file: PaperFile | null;
  readonly paper: ReadPaper | null;
  readonly textState: TextState;
  readonly remarks: readonly Remark[];
  readonly focusedId: string | null;
  readonly onFocus: (id: string) => void;
  readonly zoom: ReadingState['zoom'];
  /** A page to go to, each time that the count is another. */
  readonly going: { readonly page: number; readonly times: number };
  readonly finding: Finding | null;
  readonly onPinched: (factor: number) => void;
}

/** A paper of any kind with its remarks, or why it is not here. */
export function PaperMaterial(props: PaperMaterialProps) {
  const { file, paper } = props;
  const isHere = useWorkspaceState((state) => state.records.files.has(file?.hash ?? ''));
  if (paper !== null)
    return paper.kind === 'pdf' && paper.layout === null ? (
      <PdfPaper {...props} paper={paper} />
    ) : paper.kind === 'picture' ? (
      <PicturePaper {...props} paper={paper} />
    ) : (
      <OpenPaper {...props} paper={paper} show={textShown(paper, props.textState)} />
    );
  return (
    <div className="p-6">
      <Empty>
        {file === null ? words.reading.noPaper : isHere ? words.reading.opening : words.reading.notHere}
      </Empty>
    </div>
  );
}

type OpenedProps = PaperMaterialProps & { readonly paper: ReadPaper };

function PdfPaper(props: OpenedProps) {
  const document = usePdfDocument(props.paper.hash);
  const show = useMemo(() => (document === null ? null : ({ kind: 'pdf', document } as const)), [document]);
  return <OpenPaper {...props} show={show} />;
}

function PicturePaper(props: OpenedProps) {
  const url = useFileUrl(props.paper.hash);
  const show = useMemo(() => (url === null ? null : ({ kind: 'picture', url } as const)), [url]);
  return <OpenPaper {...props} show={show} />;
}

function textShown({ layout }: ReadPaper, state: TextState): Shown | null {
  return layout === null ? null : { kind: 'text', layout, state };
}

/** The paper with its remarks in their places, and above it those that have none. */
function OpenPaper({ paper, show, remarks, ...props }: OpenedProps & { show: Shown | null }) {
  const workspace = useWorkspace();
  const [drawingFor, setDrawingFor] = useState<Remark | null>(null);
  if (show === null) return <p className="p-6 text-quiet">{words.reading.opening}</p>;
  const place = (region: Region) => {
    if (drawingFor === null) return;
    setDrawingFor(null);
    void placeRemark(workspace, drawingFor, { kind: 'region', ...region, outline: null }, null, paper);
  };
  const loose = remarks.filter((remark) => isLoose(remark, paper));
  return (
    <div className="flex h-full min-h-0 flex-col">
      {loose.length > 0 && (
        <Loose
          view={props.view}
          paper={paper}
          remarks={loose}
          focusedId={props.focusedId}
          onFocus={props.onFocus}
          drawingFor={drawingFor}
          onDraw={setDrawingFor}
        />
      )}
      {paper.unknownKinds.length > 0 && (
        <p className="border-b border-rule px-5 py-2 text-sm text-quiet max-md:px-4">
          {words.reading.unknownKinds(paper.unknownKinds.join(', '))}
        </p>
      )}
      <div className="min-h-0 flex-1">
        <PaperDesk
          {...props}
          marked={paper}
          show={show}
          remarks={remarks.filter((remark) => !isLoose(remark, paper))}
          onDrawn={drawingFor === null ? null : place}
        />
      </div>
    </div>
  );
}

/** Whether a remark has no place on the paper that it could be shown at. */
function isLoose(remark: Remark, paper: ReadPaper): boolean {
  const { kind } = placeOf(remark);
  if (kind === 'unplaced' || kind === 'whole') return true;
  return paper.layout !== null && !(remark.id in paper.anchors);
}
