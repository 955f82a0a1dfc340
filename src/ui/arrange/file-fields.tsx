'use client';
import { useRef, useState } from 'react';
import type { ImageSource, Layer, MeshSource } from '@/core/doc/layer';
import type { Tone } from '@/core/doc/tone';
import type { SetupView } from '@/core/setup/view';
import { MM_PER_INCH } from '@/core/units/length';
import { api } from '../api';
import { Choice, Folded, NumberField, Tick } from '../controls/fields';
import { editLayers } from './actions';

export interface FieldsProps {
  job: SetupView;
  layer: Layer;
  change(edit: (j: SetupView) => void): void;
}

/** A mesh: its unit, which way up it lies, and its base plane. */
export function MeshFields({ layer, change }: FieldsProps) {
  const s = layer.source as MeshSource;
  const [error, setError] = useState<string | null>(null);
  const set = (edit: (l: Layer, s: MeshSource) => void) =>
    change((j) => editLayers(j, [layer.id], (l) => edit(l, l.source as MeshSource)));
  /** Turns or mirrors; the size follows the new shape at the same scale, the base is proposed anew. */
  const orient = async (turns: MeshSource['turns'], flip: boolean) => {
    try {
      const [was, now] = await Promise.all([api.orient(s.hash, s.turns, s.flip), api.orient(s.hash, turns, flip)]);
      const k = layer.size.x / was.size.x;
      setError(null);
      set((l, m) => {
        Object.assign(m, { turns, flip, base: now.base });
        l.size = { x: Number((now.size.x * k).toFixed(4)), y: Number((now.size.y * k).toFixed(4)) };
      });
    } catch (e) {
      setError((e as Error).message);
    }
  };
  const turn = (axis: 0 | 1 | 2) => {
    const t = s.turns.slice() as MeshSource['turns'];
    t[axis] = (t[axis] + 1) % 4;
    void orient(t, s.flip);
  };
  return (
    <Folded title="Model: unit, way up and base">
      <p className="soft truncate text-[13px]">{s.file}</p>
      <Choice
        label="File is in"
        value={s.unit}
        options={[
          ['mm', 'millimetres'],
          ['in', 'inches'],
        ]}
        onChange={(unit) =>
          set((l, m) => {
            const k = unit === 'in' ? MM_PER_INCH : 1 / MM_PER_INCH;
            m.unit = unit;
            l.size = { x: Number((l.size.x * k).toFixed(4)), y: Number((l.size.y * k).toFixed(4)) };
          })
        }
        note="guessed from its size; the size follows"
      />
      <div className="grid grid-cols-2 gap-2 py-1">
        <button type="button" className="btn btn-sm" onClick={() => turn(0)}>
          Tip over (x)
        </button>
        <button type="button" className="btn btn-sm" onClick={() => turn(1)}>
          Roll over (y)
        </button>
        <button type="button" className="btn btn-sm" onClick={() => turn(2)}>
          Turn round (z)
        </button>
        <button
          type="button"
          className={`btn btn-sm ${s.flip ? 'btn-primary' : ''}`}
          aria-pressed={s.flip}
          onClick={() => void orient(s.turns, !s.flip)}
        >
          Left for right
        </button>
      </div>
      {error && (
        <p role="alert" className="text-sm text-accent">
          {error}
        </p>
      )}
      <NumberField
        label="Base plane"
        value={Number((s.base * 100).toFixed(2))}
        min={0}
        max={99}
        suffix="% up"
        onChange={(v) => set((_, m) => (m.base = v / 100))}
        note="what lies below it is lost"
      />
    </Folded>
  );
}

/** An image's tones: what becomes high and low, what is smoothed, what is cut out. */
export function ImageFields({ layer, change }: FieldsProps) {
  const s = layer.source as ImageSource;
  const t = s.tone;
  const set = (edit: (i: ImageSource) => void) =>
    change((j) => editLayers(j, [layer.id], (l) => edit(l.source as ImageSource)));
  const tone = (edit: (t: Tone) => void) => set((i) => edit(i.tone));
  return (
    <>
      <Folded title="Image: tones to heights">
        <p className="soft truncate text-[13px]">{s.file}</p>
        <NumberField
          label="Darkest"
          value={Math.round(t.black * 1000) / 10}
          min={0}
          max={100}
          suffix="%"
          onChange={(v) => tone((x) => (x.black = v / 100))}
          note="this and darker lies lowest"
        />
        <NumberField
          label="Lightest"
          value={Math.round(t.white * 1000) / 10}
          min={0}
          max={100}
          suffix="%"
          onChange={(v) => tone((x) => (x.white = v / 100))}
        />
        <NumberField label="Gamma" value={t.gamma} min={0.1} max={10} onChange={(v) => tone((x) => (x.gamma = v))} />
        <Tick label="Dark is high" value={t.invert} onChange={(v) => tone((x) => (x.invert = v))} />
        <NumberField
          whole
          label="Specks out"
          value={t.noise}
          min={0}
          max={5}
          suffix="rounds"
          onChange={(v) => tone((x) => (x.noise = v))}
        />
        <NumberField
          label="Smooth over"
          value={t.smooth}
          min={0}
          max={50}
          suffix="pixels"
          onChange={(v) => tone((x) => (x.smooth = v))}
          note="edges stay"
        />
        {t.smooth > 0 && (
          <NumberField
            label="Edges from"
            value={Math.round(t.smoothBelow * 1000) / 10}
            min={0.1}
            max={100}
            suffix="%"
            onChange={(v) => tone((x) => (x.smoothBelow = v / 100))}
          />
        )}
        <Tick
          label="Smooth its steps"
          value={t.terraces}
          onChange={(v) => tone((x) => (x.terraces = v))}
          note="an image of 256 levels leaves terraces; no place moves by more than half a step"
        />
      </Folded>
      <Folded title="Image: background">
        <Tick
          label="Black is ground"
          value={s.blackIsGround}
          onChange={(v) => set((i) => (i.blackIsGround = v))}
          note="what is fully black does not belong to the relief"
        />
        <Tick
          label="Leave out by tone"
          value={t.cutout.threshold !== null}
          onChange={(v) => tone((x) => (x.cutout.threshold = v ? 0.1 : null))}
        />
        {t.cutout.threshold !== null && (
          <>
            <NumberField
              label={t.cutout.light ? 'Lighter than' : 'Darker than'}
              value={Math.round(t.cutout.threshold * 1000) / 10}
              min={0}
              max={100}
              suffix="%"
              onChange={(v) => tone((x) => (x.cutout.threshold = v / 100))}
            />
            <Tick
              label="The light part goes"
              value={t.cutout.light}
              onChange={(v) => tone((x) => (x.cutout.light = v))}
            />
          </>
        )}
        <Brush layer={layer} source={s} onStroke={(stroke) => tone((x) => x.cutout.strokes.push(stroke))} />
        {t.cutout.strokes.length > 0 && (
          <button type="button" className="btn btn-sm w-full" onClick={() => tone((x) => (x.cutout.strokes = []))}>
            Forget {t.cutout.strokes.length} {t.cutout.strokes.length === 1 ? 'stroke' : 'strokes'}
          </button>
        )}
      </Folded>
    </>
  );
}

type Stroke = Tone['cutout']['strokes'][number];

/** The picture, to be brushed over: what is painted is left out, or kept. */
function Brush({ layer, source, onStroke }: { layer: Layer; source: ImageSource; onStroke(s: Stroke): void }) {
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
          src={`/api/assets/${source.hash}/picture`}
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
