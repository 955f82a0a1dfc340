import { type Layer, layerSchema, type SeenLayer } from '@/core/doc/layer';
import { type SetupView, seenLayers } from '@/core/setup/view';

const known = new WeakMap<Layer, boolean>();

function isSound(l: SeenLayer): boolean {
  const had = known.get(l);
  if (had !== undefined) return had;
  const sound = layerSchema.safeParse(l).success;
  known.set(l, sound);
  return sound;
}

/** The layers that a setup sees; one whose figures are out of their bounds is told as a problem and not drawn. */
export function soundLayers(job: Pick<SetupView, 'board' | 'setup' | 'layers'>): SeenLayer[] {
  const all = seenLayers(job);
  return all.every(isSound) ? all : all.map((l) => (isSound(l) ? l : { ...l, hidden: true, mask: { kind: 'none' } }));
}
