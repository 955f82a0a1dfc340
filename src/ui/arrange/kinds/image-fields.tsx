'use client';
import type { ImageSource } from '@/core/arrange/kinds/image/schema';
import type { Tone } from '@/core/doc/tone';
import { Folded, NumberField, Tick } from '../../controls/fields';
import { editKind } from '../actions';
import { Brush } from './brush';
import type { FieldsProps, KindFields } from './kind-fields';

/** An image's tones: what becomes high and low, what is smoothed, what is cut out. */
function ImageMore({ layer, change }: FieldsProps<'image'>) {
  const s = layer.source;
  const t = s.tone;
  const set = (edit: (i: ImageSource) => void) => change((j) => editKind(j, layer.id, 'image', (l) => edit(l.source)));
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
          label="Remove specks"
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
              label="Cut away the light part"
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

export const imageFields: KindFields<'image'> = { More: ImageMore };
