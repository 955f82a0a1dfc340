'use client';
import { useRef, useState } from 'react';
import { ASSETS } from '@/contract/assets';
import { addressOf } from '@/contract/endpoint';
import type { ImageSource } from '@/core/arrange/kinds/image/schema';
import type { Layer } from '@/core/doc/layer';
import type { Tone } from '@/core/doc/tone';
import { NumberField } from '../../controls/fields';

type Stroke = Tone['cutout']['strokes'][number];

/** The picture, to be brushed over: what is painted is left out, or kept. */
export function Brush({ layer, source, onStroke }: { layer: Layer; source: ImageSource; onStroke(s: Stroke): void }) {
  const box = useRef<HTMLDivElement>(null);
  const [keep, setKeep] = useState(false);
  const [radius, setRadius] = useState(4);
  const [points, setPoints] = useState<[number, number][]>([]);
  const at = (e: React.PointerEvent): [number, number] => {
    const r = box.current!.getBoundingClientRect();
    return [Number(((e.clientX - r.left) / r.width).toFixed(4)), Number(((e.clientY - r.top) / r.height).toFixed(4))];
  };
  const drawn = [...source.tone.cutout.strokes, ...(points.length > 0 ? [{ keep, radius: radius / 100, points }] : [])];
  return (
    <div className="py-1">
      <div className="grid grid-cols-2 gap-2">
        <button
          type="button"
          className={`btn btn-sm ${keep ? '' : 'btn-primary'}`}
          aria-pressed={!keep}
          onClick={() => setKeep(false)}
        >
          Brush out
        </button>
        <button
          type="button"
          className={`btn btn-sm ${keep ? 'btn-primary' : ''}`}
          aria-pressed={keep}
          onClick={() => setKeep(true)}
        >
          Brush back in
        </button>
      </div>
      <NumberField label="Brush" value={radius} min={0.1} max={50} suffix="% wide" onChange={setRadius} />
      <div
        ref={box}
        className="relative touch-none cursor-crosshair overflow-hidden rounded border border-base-300"
        style={{ aspectRatio: `${layer.size.x} / ${layer.size.y}` }}
        onPointerDown={(e) => {
          e.currentTarget.setPointerCapture(e.pointerId);
          setPoints([at(e)]);
        }}
        onPointerMove={(e) => {
          if (points.length > 0 && points.length < 2000) setPoints((p) => [...p, at(e)]);
        }}
        onPointerUp={() => {
          if (points.length > 0) onStroke({ keep, radius: radius / 100, points });
          setPoints([]);
        }}
        onPointerCancel={() => setPoints([])}
      >
        {/* biome-ignore lint/performance/noImgElement: a picture made by our own server, of any size */}
        <img
          src={addressOf(ASSETS.picture, { hash: source.hash })}
          alt="the image, to be brushed over"
          className="h-full w-full"
          draggable={false}
        />
        <svg
          viewBox="0 0 100 100"
          preserveAspectRatio="none"
          className="pointer-events-none absolute inset-0 h-full w-full"
          aria-hidden
        >
          {drawn.map((s, i) => (
            <polyline
              // biome-ignore lint/suspicious/noArrayIndexKey: strokes have no other name
              key={i}
              points={s.points.map(([x, y]) => `${x * 100},${y * 100}`).join(' ')}
              fill="none"
              stroke={s.keep ? 'var(--color-primary)' : 'var(--color-accent)'}
              strokeOpacity={0.45}
              strokeWidth={s.radius * 200}
              strokeLinecap="round"
              strokeLinejoin="round"
            />
          ))}
        </svg>
      </div>
    </div>
  );
}
