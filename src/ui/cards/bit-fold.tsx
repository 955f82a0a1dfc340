'use client';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { ask } from '@/contract/ask';
import { SHOP } from '@/contract/shop';
import type { Cutter } from '@/core/cutter/cutter';
import { putting } from '@/core/doc/library';
import type { Material } from '@/core/doc/material';
import { keptFrom } from '@/core/doc/own-feeds';
import { Folded } from '../controls/fields';
import { CutterFields } from './cutter-fields';

/** All figures of a job's bit, and what keeps them in the drawer for other jobs. */
export function BitFold({
  cutter,
  material,
  onChange,
}: {
  cutter: Cutter;
  material: Material;
  onChange(edit: (c: Cutter) => void): void;
}) {
  const client = useQueryClient();
  const keep = useMutation({
    mutationFn: async () => {
      const { cutters } = await ask(SHOP.library, {});
      const had = cutters.find((c) => c.id === cutter.id);
      return ask(SHOP.changeLibrary, {}, putting('cutters', keptFrom(had, cutter, material)));
    },
    onSuccess: (library) => client.setQueryData(['library'], library),
  });
  return (
    <Folded title={`Bit ${cutter.number}: ${cutter.name}`}>
      <CutterFields cutter={cutter} onChange={onChange} />
      <button type="button" className="btn btn-sm mt-1 w-full" onClick={() => keep.mutate()}>
        Keep in the drawer for other jobs
      </button>
      <p role="status" className="soft mt-1 text-[13px]">
        {keep.error
          ? keep.error.message
          : keep.isSuccess
            ? `Kept: its shape for all jobs, its feeds as your own for ${material.name}.`
            : `Its feeds are kept as your own for ${material.name}.`}
      </p>
    </Folded>
  );
}
