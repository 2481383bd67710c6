import { useState } from 'react';
import type { AssignmentView } from '#core/assignment/view.ts';
import {
  placeIn,
  regionShares,
  shareIn,
  type PictureShare,
  type PictureSize,
} from '#core/check/picture-places.ts';
import type { StoredFile } from '#core/model/work.ts';
import { Slider } from '../../../shared/controls/Slider.tsx';
import { Toggles } from '../../../shared/controls/Toggles.tsx';
import { useFileUrl } from '../../../shared/files/file-url.ts';
import type { AssignmentOutlet } from '../../../shared/page/assignment-outlet.ts';
import * as words from '../../../words/en.ts';
import { answerByPlace } from '../../../workspace/commands/answer.ts';
import { useWorkspace } from '../../../workspace/use-workspace.ts';
import { PictureView, type Marked } from './PictureView.tsx';

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
  const [look, setLook] = useState<'beside' | 'over'>('beside');
  const [share, setShare] = useState(0.5);
  const [oldSize, setOldSize] = useState<PictureSize | null>(null);
  const [newSize, setNewSize] = useState<PictureSize | null>(null);
  const old = work.papers.find(({ mediaType, role }) => role === 'marked' && isPicture(mediaType)) ?? null;
  const isNewPicture = shown !== null && isPicture(shown.mediaType);
  const oldMarks = old === null || oldSize === null ? [] : marksOnOld(work, old.hash, oldSize, focusedId);
  const answers = shown === null || newSize === null ? [] : answersOn(work, shown.hash, newSize, focusedId);
  const draw = (drawn: PictureShare) => {
    const remark = work.remarks.find(({ id }) => id === drawingFor);
    if (remark === undefined || shown === null || newSize === null) return;
    void answerByPlace(workspace, view.assignment.id, remark, placeIn(shown.hash, drawn, newSize));
    onDrawn();
  };
  const onDraw = drawingFor === null ? undefined : draw;
  const oldPicture = old !== null && (
    <figure className="min-w-0">
      <figcaption className="mb-1 text-sm text-quiet">{words.newFiles.marked(old.name)}</figcaption>
      <PictureView
        hash={old.hash}
        name={words.newFiles.marked(old.name)}
        marks={oldMarks}
        onSize={setOldSize}
      />
    </figure>
  );
  if (shown === null) return <div className="mt-4 max-w-xl">{oldPicture}</div>;
  if (!isNewPicture)
    return (
      <div className="grid gap-4 lg:grid-cols-2">
        {oldPicture}
        <NewFile file={shown} />
      </div>
    );
  return (
    <>
      {old !== null && (
        <div className="mb-2 flex flex-wrap items-center gap-x-6 gap-y-1">
          <Toggles
            label={words.newFiles.look}
            options={[
              ['beside', words.newFiles.beside],
              ['over', words.newFiles.over],
            ]}
            chosen={look}
            onChoose={setLook}
          />
          {look === 'over' && (
            <div className="min-w-48 flex-1">
              <Slider
                label={words.newFiles.slider}
                valueText={words.newFiles.sliderAt(Math.round(share * 100))}
                value={share}
                onChange={setShare}
              />
            </div>
          )}
        </div>
      )}
      {drawingFor !== null && (
        <p ref={intoView} role="status" className="mb-2 rounded-md bg-sunken px-3 py-2 text-sm font-semibold">
          {words.newFiles.drawNow}
        </p>
      )}
      {look === 'over' && old !== null ? (
        <figure className="max-w-2xl">
          <figcaption className="mb-1 text-sm text-quiet">{words.newFiles.overCaption}</figcaption>
          <PictureView
            hash={shown.hash}
            name={words.newFiles.isNew(shown.name)}
            marks={[...answers, ...oldMarks]}
            onSize={setNewSize}
            onDraw={onDraw}
          >
            <div className="absolute inset-0" style={{ clipPath: `inset(0 0 0 ${share * 100}%)` }}>
              <OldOver hash={old.hash} name={words.newFiles.marked(old.name)} onSize={setOldSize} />
            </div>
            <span
              aria-hidden
              className="absolute inset-y-0 w-0.5 bg-accent"
              style={{ left: `${share * 100}%` }}
            />
          </PictureView>
        </figure>
      ) : (
        <div className="grid gap-4 lg:grid-cols-2">
          {oldPicture}
          <figure className="min-w-0">
            <figcaption className="mb-1 text-sm text-quiet">{words.newFiles.isNew(shown.name)}</figcaption>
            <PictureView
              hash={shown.hash}
              name={words.newFiles.isNew(shown.name)}
              // Where it was asked for is shown faintly on the new one too.
              marks={[...oldMarks.filter(({ focused }) => focused), ...answers]}
              onSize={setNewSize}
              onDraw={onDraw}
            />
          </figure>
        </div>
      )}
    </>
  );
}

/** On a narrow screen the picture stands above the remarks: it comes into sight when it is to be drawn in. */
function intoView(element: HTMLElement | null): void {
  element?.scrollIntoView({ block: 'nearest' });
}

/** The marked picture over the new one, stretched to the same size so that the two lie on one another. */
function OldOver({
  hash,
  name,
  onSize,
}: {
  hash: string;
  name: string;
  onSize: (size: PictureSize) => void;
}) {
  const url = useFileUrl(hash);
  return url === null ? null : (
    <img
      src={url}
      alt={name}
      draggable={false}
      className="absolute inset-0 h-full w-full"
      onLoad={({ currentTarget: { naturalWidth, naturalHeight } }) =>
        onSize({ width: naturalWidth, height: naturalHeight })
      }
    />
  );
}

/** A new file that is no picture: opened by the browser, or saved. */
function NewFile({ file }: { file: StoredFile }) {
  const url = useFileUrl(file.hash);
  return (
    <figure className="min-w-0">
      <figcaption className="mb-1 text-sm text-quiet">{words.newFiles.isNew(file.name)}</figcaption>
      <p className="rounded-lg border border-dashed border-rule-strong/70 p-5">
        {words.newFiles.noPicture}{' '}
        {url !== null && (
          <a
            href={url}
            target="_blank"
            rel="noreferrer"
            className="font-semibold text-accent hover:underline"
          >
            {words.newFiles.openFile(file.name)}
          </a>
        )}
      </p>
    </figure>
  );
}

function isPicture(mediaType: string): boolean {
  return mediaType.startsWith('image/');
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
