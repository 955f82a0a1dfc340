import { Maximize2, Ruler, ZoomIn, ZoomOut } from 'lucide-react';
import { atScale, type Camera, type Looking, REAL, STEP, zoomed } from './camera';

/** Closer, further, the whole board, and as large as it is. */
export function ZoomButtons({
  looking,
  setCamera,
}: {
  looking: Looking;
  setCamera(to: (was: Camera | null) => Camera | null): void;
}) {
  const middle = { x: looking.room.width / 2, y: looking.room.height / 2 };
  const ways = [
    [
      'Closer',
      '+',
      <ZoomIn key="in" size={16} aria-hidden />,
      (was: Camera | null) => zoomed(looking, was, middle, STEP),
    ],
    [
      'Further',
      '-',
      <ZoomOut key="out" size={16} aria-hidden />,
      (was: Camera | null) => zoomed(looking, was, middle, 1 / STEP),
    ],
    ['The whole board', '0', <Maximize2 key="all" size={16} aria-hidden />, () => null],
    [
      'As large as it is, where the screen shows 96 pixels an inch',
      '',
      <Ruler key="real" size={16} aria-hidden />,
      (was: Camera | null) => atScale(looking, was, REAL),
    ],
  ] as const;
  return (
    <fieldset className="join">
      <legend className="sr-only">How close the board is looked at</legend>
      {ways.map(([name, key, icon, to]) => (
        <button
          key={name}
          type="button"
          className="btn join-item btn-sm btn-square bg-base-100"
          aria-label={name}
          title={key ? `${name} (${key})` : name}
          onClick={() => setCamera(to)}
        >
          {icon}
        </button>
      ))}
    </fieldset>
  );
}
