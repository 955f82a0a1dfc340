'use client';
import { applyEdits } from '@/core/doc/edits';
import type { Material } from '@/core/doc/material';
import { labelOf, textOf } from '@/core/findings/texts/text-of';
import { drawerFindings } from '@/core/plan/drawer';
import type { CardProps } from '@/ui/cards/card-props';
import { Folded, LengthField, NumberField, Tick } from '../controls/fields';

/** The figures that cutting a material goes by. */
export function MaterialFigures({ material, set }: { material: Material; set(edit: (m: Material) => void): void }) {
  return (
    <>
      <NumberField
        label="Stepdown"
        value={Number((100 * material.stepdown).toFixed(2))}
        min={0}
        open
        max={300}
        suffix="% of the bit"
        onChange={(v) => set((m) => (m.stepdown = v / 100))}
        note="proposed for new passes"
      />
      <LengthField
        label="Stock to leave"
        value={material.stockToLeave}
        min={0}
        max={20}
        onChange={(v) => set((m) => (m.stockToLeave = v))}
      />
      <NumberField
        label="Ramp"
        value={material.rampAngle}
        min={0}
        open
        max={45}
        suffix="degrees"
        onChange={(v) => set((m) => (m.rampAngle = v))}
      />
      <NumberField
        label="Smallest chip load"
        value={material.chipLoad.least}
        min={0}
        max={5}
        suffix="mm a tooth"
        onChange={(v) => set((m) => (m.chipLoad.least = v))}
      />
      <NumberField
        label="Largest chip load"
        value={material.chipLoad.most}
        min={0}
        open
        max={5}
        suffix="mm a tooth"
        onChange={(v) => set((m) => (m.chipLoad.most = v))}
      />
      <Tick
        label="Bits may go straight down"
        value={material.plunges}
        onChange={(v) => set((m) => (m.plunges = v))}
        note={material.plunges ? undefined : 'only drills do; all others sink along their path'}
      />
    </>
  );
}

/** The figures of the board's material; the job keeps its own copy of them. */
export function MaterialFolds({ job, change }: CardProps) {
  const { material } = job.board;
  return (
    <Folded title={`Material: ${material.name}`}>
      <MaterialFigures material={material} set={(edit) => change((j) => edit(j.board.material))} />
    </Folded>
  );
}

/** Bits, machine and material of the shop that have other figures now than this job was given. */
export function ChangedFigures({ job, change, library }: CardProps) {
  const found = library ? drawerFindings(job.document, library) : [];
  if (found.length === 0) return null;
  return (
    <ul className="mb-2 space-y-1.5">
      {found.map((f) => (
        <li key={f.id} className="rounded border border-base-300 bg-(--paper) px-3 py-2 text-sm">
          {textOf(f).message}
          {f.fixes.map((fix) => (
            <button
              key={fix.id}
              type="button"
              className="btn btn-sm mt-1.5 w-full"
              onClick={() => change((j) => applyEdits(j.document, fix.edits))}
            >
              {labelOf(fix)}
            </button>
          ))}
        </li>
      ))}
    </ul>
  );
}
