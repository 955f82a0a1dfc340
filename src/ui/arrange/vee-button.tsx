'use client';
import { useQuery } from '@tanstack/react-query';
import { ask } from '@/contract/ask';
import { SHOP } from '@/contract/shop';
import { makeGroove } from '@/core/arrange/grooves';
import { sourceKind } from '@/core/arrange/kinds/registry';
import { applyEdits } from '@/core/doc/edits';
import type { Layer } from '@/core/doc/layer';
import { bitIn } from '@/core/doc/own-feeds';
import { addPass } from '@/core/passes/add-pass';
import type { SetupView } from '@/core/setup/view';
import { editLayers } from './actions';

/** Makes words or a shape V grooves, and sees that the job has a pass and a bit that cut them. */
export function VeeButton({ layer, change }: { layer: Layer; change(edit: (j: SetupView) => void): void }) {
  const library = useQuery({ queryKey: ['library'], queryFn: () => ask(SHOP.library, {}), staleTime: 60_000 });
  const bit = library.data?.cutters.find((c) => c.shape === 'v');
  const relief = sourceKind(layer).relief?.(layer);
  if (!bit || !relief || relief.kind === 'vee') return null;
  return (
    <button
      type="button"
      className="btn btn-sm my-1 w-full"
      onClick={() =>
        change((j) => {
          editLayers(j, [layer.id], (l) => makeGroove(l, bit.includedAngle));
          if (j.passes.some((p) => p.kind === 'letter')) return;
          applyEdits(j.document, addPass(j, 'letter', bitIn(bit, j.board.material)));
        })
      }
    >
      Cut with {bit.name}
    </button>
  );
}
