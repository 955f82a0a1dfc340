'use client';
import { CUTTER_SHAPES, type Cutter, type CutterShape, HELICES } from '@/core/cutter/cutter';
import { reshape } from '@/core/cutter/reshape';
import { Choice, FeedField, LengthField, NumberField, TextField, Tick } from '../controls/fields';

export const SHAPE_NAMES: Record<CutterShape, string> = {
  endmill: 'end mill',
  ball: 'ball nose',
  bullnose: 'bull-nose',
  'tapered-ball': 'tapered ball',
  v: 'V bit',
  drill: 'drill',
  slot: 'slot bit',
};

const OUTLINES: Record<CutterShape, string> = {
  endmill: 'M6 4h12v32h-12z',
  ball: 'M6 4h12v26a6 6 0 0 1-12 0z',
  bullnose: 'M6 4h12v29a3 3 0 0 1-3 3h-6a3 3 0 0 1-3-3z',
  'tapered-ball': 'M5 4h14l-4.5 29a2.5 2.5 0 0 1-5 0z',
  v: 'M5 4h14v14l-7 18l-7-18z',
  drill: 'M8 4h8v28l-4 4l-4-4z',
  slot: 'M10 4h4v24h5v8h-14v-8h5z',
};

/** The bit's outline. @param label what it stands for where no text beside it says so */
export function CutterMark({ shape, high = 40, label }: { shape: CutterShape; high?: number; label?: string }) {
  return (
    <svg width={0.6 * high} height={high} viewBox="0 0 24 40" aria-hidden={label === undefined} className="shrink-0">
      <title>{label ?? SHAPE_NAMES[shape]}</title>
      <path d={OUTLINES[shape]} fill="var(--hatch)" stroke="var(--color-base-content)" strokeWidth="1.4" />
      <path d="M8 12l8-4M8 20l8-4M9 28l6-4" stroke="var(--color-base-content)" strokeWidth="1.1" />
    </svg>
  );
}

type Setter = <K extends keyof Cutter>(key: K) => (v: Cutter[K]) => void;

const HELIX_NOTES: Record<(typeof HELICES)[number], string | undefined> = {
  up: 'clears chips, lifts the piece',
  down: 'presses the piece down, packs chips',
  compression: 'clean edges on both faces',
  straight: undefined,
};

/** How its flutes turn, and what is known of its life. */
function WearFields({ cutter, set }: { cutter: Cutter; set: Setter }) {
  return (
    <>
      <Choice
        label="Helix"
        value={cutter.helix}
        options={HELICES.map((h) => [h, h] as const)}
        onChange={set('helix')}
        note={HELIX_NOTES[cutter.helix]}
      />
      {cutter.helix === 'compression' && (
        <LengthField
          label="Upcut part"
          value={cutter.upcut}
          min={0}
          max={500}
          onChange={set('upcut')}
          note="from the tip; the first lap of a cut-out goes deeper. 0: not known, about a diameter"
        />
      )}
      <Tick label="Cuts at its centre" value={cutter.cutsAtCentre} onChange={set('cutsAtCentre')} />
      <NumberField
        label="Price"
        value={cutter.price ?? 0}
        min={0}
        suffix="each"
        onChange={(v) => set('price')(v === 0 ? null : v)}
        note="0 when it is not known"
      />
      <NumberField whole label="Runs" value={cutter.runs} min={0} suffix="programs cut" onChange={set('runs')} />
    </>
  );
}

/** All that a bit is: its exact profile, what holds it, and how it may be run. */
export function CutterFields({ cutter, onChange }: { cutter: Cutter; onChange(edit: (c: Cutter) => void): void }) {
  const set =
    <K extends keyof Cutter>(key: K) =>
    (v: Cutter[K]) =>
      onChange((c) => {
        c[key] = v;
      });
  return (
    <>
      <TextField label="Name" value={cutter.name} max={80} required onChange={set('name')} />
      <Choice
        label="Shape"
        value={cutter.shape}
        options={CUTTER_SHAPES.map((s) => [s, SHAPE_NAMES[s]] as const)}
        onChange={(shape) => onChange((c) => reshape(c, shape))}
      />
      <LengthField label="Diameter" value={cutter.diameter} min={0} open max={200} onChange={set('diameter')} />
      {cutter.shape === 'bullnose' && (
        <LengthField
          label="Corner radius"
          value={cutter.cornerRadius}
          min={0}
          open
          max={cutter.diameter / 2}
          onChange={set('cornerRadius')}
        />
      )}
      {(cutter.shape === 'tapered-ball' || cutter.shape === 'v') && (
        <LengthField
          label="Tip diameter"
          value={cutter.tipDiameter}
          min={0}
          max={cutter.diameter}
          onChange={set('tipDiameter')}
        />
      )}
      {cutter.shape === 'tapered-ball' && (
        <NumberField
          label="Taper"
          value={cutter.taperAngle}
          min={0}
          open
          max={60}
          suffix="degrees a side"
          onChange={set('taperAngle')}
        />
      )}
      {(cutter.shape === 'v' || cutter.shape === 'drill') && (
        <NumberField
          label={cutter.shape === 'v' ? 'Included angle' : 'Point angle'}
          value={cutter.includedAngle}
          min={0}
          open
          max={170}
          suffix="degrees"
          onChange={set('includedAngle')}
        />
      )}
      {cutter.shape === 'slot' && (
        <>
          <LengthField
            label="Neck diameter"
            value={cutter.neckDiameter}
            min={0}
            open
            max={cutter.diameter}
            onChange={set('neckDiameter')}
            note="the slit that it leaves over its head"
          />
          <LengthField label="Neck length" value={cutter.neckLength} min={0} open onChange={set('neckLength')} />
        </>
      )}
      <LengthField label="Flute length" value={cutter.fluteLength} min={0} open onChange={set('fluteLength')} />
      <LengthField label="Shank" value={cutter.shankDiameter} min={0} open onChange={set('shankDiameter')} />
      <LengthField
        label="Stick-out"
        value={cutter.stickOut}
        min={0}
        open
        onChange={set('stickOut')}
        note="from collet or holder to tip"
      />
      <LengthField label="Holder" value={cutter.holderDiameter} min={0} open onChange={set('holderDiameter')} />
      <NumberField whole label="Flutes" value={cutter.flutes} min={1} max={12} onChange={set('flutes')} />
      <NumberField label="Spindle speed" value={cutter.rpm} min={0} open suffix="rpm" onChange={set('rpm')} />
      <FeedField label="Plunge" value={cutter.plunge} onChange={set('plunge')} />
      <LengthField label="Deepest stepdown" value={cutter.maxStepdown} min={0} open onChange={set('maxStepdown')} />
      <LengthField
        label="Deepest plunge"
        value={cutter.maxPlungeDepth}
        min={0}
        onChange={set('maxPlungeDepth')}
        note="0 when it must be ramped"
      />
      <WearFields cutter={cutter} set={set} />
      <p className="soft py-1 text-[13px]">
        Figures are starting points; the maker of the bit and of the machine come first.
      </p>
    </>
  );
}
