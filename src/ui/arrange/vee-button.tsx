'use client';
import { useQuery } from '@tanstack/react-query';
import { applyEdits } from '@/core/doc/edits';
import type { Layer } from '@/core/doc/layer';
import { addPass } from '@/core/passes/add-pass';
import type { SetupView } from '@/core/setup/view';
import { api } from '../api';
import { editLayers } from './actions';

/** Deepest of new letters, mm: as deep as most V bits go at once. */
const DEEPEST = 3;

/** Makes words or a shape V grooves, and sees that the job has a pass and a bit that cut them. */
export function VeeButton({ layer, change }: { layer: Layer; change(edit: (j: SetupView) => void): void }) {
  const library = useQuery({ queryKey: ['library'], queryFn: api.library, staleTime: 60_000 });
  const bit = library.data?.cutters.find((c) => c.shape === 'v');
  const { source } = layer;
  if (!bit || (source.kind !== 'words' && source.kind !== 'shape') || source.relief.kind === 'vee') return null;
  return (
    <button
      type="button"
      className="btn btn-sm my-1 w-full"
      onClick={() =>
        change((j) => {
          editLayers(j, [layer.id], (l) => {
            if (l.source.kind !== 'words' && l.source.kind !== 'shape') return;
            l.source.relief = { kind: 'vee', angle: bit.includedAngle };
            Object.assign(l, { join: 'carve', lift: 0, rise: DEEPEST, invert: false });
          });
          if (j.passes.some((p) => p.kind === 'letter')) return;
          applyEdits(j.document, addPass(j, 'letter', bit));
        })
      }
    >
      Cut with {bit.name}
    </button>
  );
}
