import { Suspense, useState } from 'react';
import type { AssignmentView } from '#core/assignment/view.ts';
import {
  placeIn,
  regionShares,
  shareIn,
  type PictureShare,
  type PictureSize,
} from '#core/check/picture-places.ts';
import type { FileHash } from '#core/model/ids.ts';
import { shareOnNewer } from '#core/picture/align.ts';
import { within } from '#core/picture/edges.ts';
import type { StoredFile } from '#core/model/work.ts';
import { Button } from '../../../shared/controls/Controls.tsx';
import { Slider } from '../../../shared/controls/Slider.tsx';
import { Toggles } from '../../../shared/controls/Toggles.tsx';
import { FilePreview } from '../../../shared/files/preview.ts';
import { useFileBytes, useFileUrl } from '../../../shared/files/file-url.ts';
import type { AssignmentOutlet } from '../../../shared/page/assignment-outlet.ts';
import * as words from '../../../words/en.ts';
import { answerByPlace } from '../../../workspace/commands/answer.ts';
import { useWorkspace } from '../../../workspace/use-workspace.ts';
import { isPicture, useAlignment } from './pictures.ts';
import { PictureView, type Marked } from './PictureView.tsx';
import { PlaceByKeys } from './PlaceByKeys.tsx';

/** The file that was marked and the new one: beside one another, or one over the other with a slider between. */
export function Compared({
  outlet: { view, work },
  shown,
  focusedId,
  drawingFor,
  onDrawn,
}: {
  outlet: AssignmentOutlet;
  shown: StoredFile | null;
  focusedId: string | null;
  /** The remark for which a place is drawn in the new picture; null: none is. */
  drawingFor: string | null;
  onDrawn: () => void;
}) {
  const workspace = useWorkspace();
  const [look, setLook] = useState<Look>('beside');
  const [share, setShare] = useState(0.5);
  const [oldSize, setOldSize] = useState<PictureSize | null>(null);
  const [newSize, setNewSize] = useState<PictureSize | null>(null);
  const [placeByKeys, setPlaceByKeys] = useState<{ of: string; place: PictureShare } | null>(null);
  const keysPlace = placeByKeys !== null && placeByKeys.of === drawingFor ? placeByKeys.place : null;
  const setKeysPlace = (place: PictureShare) =>
    setPlaceByKeys(drawingFor === null ? null : { of: drawingFor, place });
  const isNewPicture = shown !== null && isPicture(shown.mediaType);
  const old = oldFile(work, isNewPicture);
  const alignment = useAlignment(
    old !== null && isPicture(old.mediaType) ? { hash: old.hash, size: oldSize } : null,
    isNewPicture ? { hash: shown.hash, size: newSize } : null,
  );
  const oldMarks = old === null || oldSize === null ? [] : marksOnOld(work, old.hash, oldSize, focusedId);
  // Where something was asked for, on the new picture.
  const asked =
    alignment === null
      ? []
      : oldMarks.map((mark) => ({ ...mark, share: shareOnNewer(mark.share, alignment) }));
  const answers = shown === null || newSize === null ? [] : answersOn(work, shown.hash, newSize, focusedId);
  const draw = (drawn: PictureShare) => {
    const remark = work.remarks.find(({ id }) => id === drawingFor);
    if (remark === undefined || shown === null || newSize === null) return;
    void answerByPlace(
      workspace,
      view.assignment.id,
      { remarkId: remark.id, partId: null },
      placeIn(shown.hash, drawn, newSize),
    );
    setPlaceByKeys(null);
    onDrawn();
  };
  const oldPicture = old !== null && (
    <figure className="min-w-0">
      <figcaption className="mb-1 text-sm text-quiet">{words.newFiles.marked(old.name)}</figcaption>
      {isPicture(old.mediaType) ? (
        <PictureView
          hash={old.hash}
          name={words.newFiles.marked(old.name)}
          marks={oldMarks}
          onSize={setOldSize}
        />
      ) : (
        <KeptPreview file={old} />
      )}
    </figure>
  );
  if (shown === null) return <div className="mt-4 max-w-xl">{oldPicture}</div>;
  if (!isNewPicture)
    return (
      <div className="grid gap-4 lg:grid-cols-2">
        {oldPicture}
        <figure className="min-w-0">
          <figcaption className="mb-1 text-sm text-quiet">{words.newFiles.isNew(shown.name)}</figcaption>
          <KeptPreview file={shown} />
        </figure>
      </div>
    );
  const proposed = within(keysPlace ?? asked.find(({ id }) => id === drawingFor)?.share ?? MIDDLE);
  const drawn: Marked[] =
    drawingFor === null || keysPlace === null
      ? []
      : [{ id: 'place', number: null, share: keysPlace, focused: true, isAnswer: true }];
  const newPicture = {
    hash: shown.hash,
    name: words.newFiles.isNew(shown.name),
    // Where something was asked for is shown on the new one too.
    marks: [...asked, ...answers, ...drawn],
    onSize: setNewSize,
    onDraw: drawingFor === null ? undefined : draw,
  };
  return (
    <>
      {old !== null && isPicture(old.mediaType) && (
        <Looks look={look} onLook={setLook} share={share} onShare={setShare} />
      )}
      {drawingFor !== null && (
        <div ref={intoView} className="mb-3 rounded-md bg-sunken px-3 py-2">
          <p role="status" className="text-sm font-semibold">
            {words.newFiles.drawNow}
          </p>
          <PlaceByKeys place={proposed} onChange={setKeysPlace} />
          <Button className="mt-1" onClick={() => draw(proposed)}>
            {words.newFiles.keepPlace}
          </Button>
        </div>
      )}
      {look === 'over' && old !== null && alignment !== null ? (
        <figure className="max-w-2xl">
          <figcaption className="mb-1 text-sm text-quiet">
            {words.newFiles.overCaption} {alignment.sure ? words.newFiles.aligned : words.newFiles.fitted}
          </figcaption>
          <PictureView {...newPicture}>
            <OldOver old={old} share={share} place={alignment.place} onSize={setOldSize} />
          </PictureView>
        </figure>
      ) : (
        <div className="grid gap-4 lg:grid-cols-2">
          {oldPicture}
          <figure className="min-w-0">
            <figcaption className="mb-1 text-sm text-quiet">{newPicture.name}</figcaption>
            <PictureView {...newPicture} />
          </figure>
        </div>
      )}
    </>
  );
}

type Look = 'beside' | 'over';

/** How the two are shown, and how much of the new one where it lies under the other. */
function Looks({
  look,
  onLook,
  share,
  onShare,
}: {
  look: Look;
  onLook: (look: Look) => void;
  share: number;
  onShare: (share: number) => void;
}) {
  return (
    <div className="mb-2 flex flex-wrap items-center gap-x-6 gap-y-1">
      <Toggles
        label={words.newFiles.look}
        options={[
          ['beside', words.newFiles.beside],
          ['over', words.newFiles.over],
        ]}
        chosen={look}
        onChoose={onLook}
      />
      {look === 'over' && (
        <div className="min-w-48 flex-1">
          <Slider
            label={words.newFiles.slider}
            valueText={words.newFiles.sliderAt(Math.round(share * 100))}
            value={share}
            onChange={onShare}
          />
        </div>
      )}
    </div>
  );
}

/** On a narrow screen the picture stands above the remarks: it comes into sight when it is to be drawn in. */
function intoView(element: HTMLElement | null): void {
  element?.scrollIntoView({ block: 'nearest' });
}

/** The marked picture over the new one, where what both show lies on itself, right of the line. */
function OldOver({
  old: { hash, name },
  share,
  place,
  onSize,
}: {
  old: AssignmentView['papers'][number];
  /** How much of the new one shows, from the left. */
  share: number;
  place: PictureShare;
  onSize: (size: PictureSize) => void;
}) {
  const url = useFileUrl(hash);
  return (
    <>
      <div className="absolute inset-0 overflow-hidden" style={{ clipPath: `inset(0 0 0 ${share * 100}%)` }}>
        {url !== null && (
          <img
            src={url}
            alt={words.newFiles.marked(name)}
            draggable={false}
            className="absolute max-w-none"
            style={{
              left: `${place.x * 100}%`,
              top: `${place.y * 100}%`,
              width: `${place.width * 100}%`,
              height: `${place.height * 100}%`,
            }}
            onLoad={({ currentTarget: { naturalWidth, naturalHeight } }) =>
              onSize({ width: naturalWidth, height: naturalHeight })
            }
          />
        )}
      </div>
      <span aria-hidden className="absolute inset-y-0 w-0.5 bg-accent" style={{ left: `${share * 100}%` }} />
    </>
  );
}

/** Where a place begins that is made with the keys and was asked for nowhere in the picture. */
const MIDDLE: PictureShare = { x: 0.35, y: 0.35, width: 0.3, height: 0.3 };

/** What the new file is compared with: of pictures the marked one, of others what came back marked, else what was sent. */
function oldFile({ papers }: AssignmentView, isNewPicture: boolean): AssignmentView['papers'][number] | null {
  const marked = papers.filter(({ role }) => role === 'marked');
  const picture = marked.find(({ mediaType }) => isPicture(mediaType));
  if (isNewPicture) return picture ?? null;
  return marked.find(({ mediaType }) => !isPicture(mediaType)) ?? picture ?? papers.at(0) ?? null;
}

/** A kept file as it is, whatever its kind. */
function KeptPreview({ file: { hash, name } }: { file: { readonly hash: FileHash; readonly name: string } }) {
  const bytes = useFileBytes(hash);
  return bytes === null ? (
    <p className="text-quiet">{words.reading.opening}</p>
  ) : (
    <Suspense fallback={<p className="text-quiet">{words.reading.opening}</p>}>
      <FilePreview name={name} bytes={bytes} />
    </Suspense>
  );
}

function markOf(
  work: AssignmentView,
  id: string,
  focusedId: string | null,
  share: PictureShare,
  isAnswer: boolean,
): Marked {
  return { id, number: work.numberByRemark.get(id) ?? 0, share, focused: id === focusedId, isAnswer };
}

/** The regions of the marked picture. */
function marksOnOld(
  work: AssignmentView,
  hash: string,
  size: PictureSize,
  focusedId: string | null,
): Marked[] {
  return work.remarks
    .filter(({ paperHash }) => paperHash === hash)
    .flatMap((remark) =>
      regionShares(remark, size).map((share) => markOf(work, remark.id, focusedId, share, false)),
    );
}

/** The places drawn in a new picture. */
function answersOn(
  work: AssignmentView,
  hash: string,
  size: PictureSize,
  focusedId: string | null,
): Marked[] {
  return [...work.given.values()].flatMap(({ remarkId, regions }) =>
    regions
      .filter(({ fileHash }) => fileHash === hash)
      .map((region) => markOf(work, remarkId, focusedId, shareIn(region, size), true)),
  );
}
