import type { PictureShare } from '#core/check/picture-places.ts';
import { edgesOf, withEdge, type Edge } from '#core/picture/edges.ts';
import { Slider } from '../../../shared/controls/Slider.tsx';
import * as words from '../../../words/en.ts';

const EDGES: readonly Edge[] = ['left', 'right', 'top', 'bottom'];

/** A rectangle on a picture by its four edges, each moved with the arrow keys. */
export function PlaceByKeys({
  place,
  onChange,
}: {
  place: PictureShare;
  onChange: (place: PictureShare) => void;
}) {
  const edges = edgesOf(place);
  return (
    <fieldset className="grid grid-cols-2 gap-x-6 max-md:grid-cols-1">
      <legend className="sr-only">{words.newFiles.placeByKeys}</legend>
      {EDGES.map((edge) => (
        <div key={edge} className="text-sm text-quiet">
          <span aria-hidden>{words.newFiles.edges[edge]}</span>
          <Slider
            label={words.newFiles.edges[edge]}
            value={edges[edge]}
            valueText={words.newFiles.edgeAt(Math.round(edges[edge] * 100))}
            onChange={(value) => onChange(withEdge(place, edge, value))}
          />
        </div>
      ))}
    </fieldset>
  );
}
