import { resizeLayer } from '@/core/arrange/new-layer';
import type { Layer } from '@/core/doc/layer';
import { unrolled } from '@/core/field/drum';
import type { SetupView } from '@/core/setup/view';
import { sayLength } from '@/core/units/say';
import { Folded, Tick } from '../controls/fields';

interface Props {
  job: SetupView;
  layer: Layer;
  set(edit: (l: Layer) => void): void;
}

/** A drum seen from the front, and the half of its sheet that is seen: pi / 2 times as wide as the drum is across. */
function HalfSeen() {
  return (
    <svg
      width="230"
      height="76"
      viewBox="0 0 230 76"
      role="img"
      aria-label="What is seen of a drum from the front is half of its sheet, 1.571 times as wide as the drum is across"
      className="my-1 block"
    >
      <circle cx="40" cy="34" r="26" fill="var(--wood)" stroke="var(--wood-line)" />
      <path d="M14 34a26 26 0 0 1 52 0" fill="none" stroke="var(--color-primary)" strokeWidth="2.5" />
      <path d="M14 66h52" stroke="currentColor" strokeWidth="1.2" />
      <text x="40" y="75" fontSize="9" textAnchor="middle" fill="currentColor">
        d
      </text>
      <rect
        x="122"
        y="20"
        width="81.7"
        height="26"
        fill="var(--wood)"
        stroke="var(--color-primary)"
        strokeWidth="2.5"
      />
      <path d="M122 66h81.7" stroke="currentColor" strokeWidth="1.2" />
      <text x="163" y="75" fontSize="9" textAnchor="middle" fill="currentColor">
        π d / 2
      </text>
    </svg>
  );
}

/** Says whether a layer was drawn as a drum is seen from the front: pi / 2 times as large the way round if so. One that stands askew is left alone. */
export function drawnFromFront(l: Layer, fromFront: boolean): void {
  if (l.turn % 90 !== 0 || l.fromFront === fromFront) return;
  const times = fromFront ? Math.PI / 2 : 2 / Math.PI;
  if (l.turn % 180 === 0) resizeLayer(l, 1, times);
  else resizeLayer(l, times, 1);
  l.fromFront = fromFront;
}

/** How a layer lies around a drum: what its width comes to there, and artwork as it is seen from the front brought onto the sheet. */
export function AroundFold({ job: { board }, layer, set }: Props) {
  if (!board.drum) return null;
  const askew = layer.turn % 90 !== 0;
  const around = layer.turn % 180 === 0 ? layer.size.y : layer.size.x;
  const deep = Math.max(0, board.thickness - layer.rise);
  return (
    <Folded title="Around the drum">
      {!askew && (
        <p className="text-sm leading-snug">
          It covers <b>{Math.round((360 * around) / board.y)}°</b> of the drum. {sayLength(layer.rise, 1)} deeper the
          drum is {sayLength(unrolled(deep), 1)} round, and it comes out as much narrower there.
        </p>
      )}
      <p className="soft pt-1 text-sm leading-snug">
        Artwork drawn as a drum is seen from the front looks squashed on it: half of its sheet is seen, 1.571 times as
        wide as the drum is across.
      </p>
      <HalfSeen />
      <Tick
        label="Drawn as seen from the front"
        value={layer.fromFront}
        disabled={askew}
        onChange={(v) => set((l) => drawnFromFront(l, v))}
        note={layer.fromFront ? 'it has been made 1.571 times as wide' : undefined}
      />
      {askew && <p className="soft pt-1 text-sm">It stands askew: turn it to 0 or 90 degrees first.</p>}
    </Folded>
  );
}
