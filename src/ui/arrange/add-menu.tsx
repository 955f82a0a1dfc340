'use client';
import { useQueryClient } from '@tanstack/react-query';
import { Plus } from 'lucide-react';
import { useId, useRef, useState } from 'react';
import { NEW_WORDS, newShape, newWords } from '@/core/arrange/new-layer';
import type { Layer } from '@/core/doc/layer';
import type { ReliefOf } from '@/core/doc/relief-of';
import type { Edge, Outline } from '@/core/outline/shapes';
import type { SetupView } from '@/core/setup/view';
import type { Drawing } from '@/core/sources/drawing';
import { type AssetInfo, api, uploadAsset } from '../api';
import { newId, placeDrawing, placeFile } from './actions';
import { LINE } from './shape-fields';
import { UnitQuestion } from './unit-question';
import { arranger } from './use-arrangement';

type Entry = [name: string, outline: Outline, relief: ReliefOf, share: number, edge?: Edge];

const SHAPES: Entry[] = [
  ['Panel', { kind: 'rounded', radius: 12 }, { kind: 'ogee', width: 12, band: false }, 0.9],
  ['Rectangle', { kind: 'rectangle' }, { kind: 'flat' }, 0.6],
  ['Oval', { kind: 'oval' }, { kind: 'flat' }, 0.6],
  ['Circle', { kind: 'circle' }, { kind: 'flat' }, 0.6],
  ['Arch', { kind: 'arch' }, { kind: 'flat' }, 0.6],
  ['Scalloped round', { kind: 'scalloped', lobes: 16 }, { kind: 'flat' }, 0.7],
  ['Cartouche', { kind: 'cartouche' }, { kind: 'bead', width: 5, band: false }, 0.6],
  ['Waney board', { kind: 'rectangle' }, { kind: 'flat' }, 0.9, { kind: 'waney', depth: 6, length: 40, seed: 1 }],
  ['Notched round', { kind: 'circle' }, { kind: 'flat' }, 0.7, { kind: 'notched', count: 24, width: 6, depth: 3 }],
  ['Hexagon', { kind: 'polygon', sides: 6 }, { kind: 'flat' }, 0.6],
  ['Drawn lines', { kind: 'strokes', d: LINE, width: 3 }, { kind: 'flat' }, 0.5],
  ['Drawn outline', { kind: 'path', d: 'M 0 40 C 0 0 100 0 100 40 L 50 100 Z' }, { kind: 'flat' }, 0.5],
];

const FORMS: Entry[] = [
  ['Dish', { kind: 'circle' }, { kind: 'dish' }, 0.5],
  ['Dome', { kind: 'oval' }, { kind: 'dome' }, 0.4],
  ['Ogee border', { kind: 'rounded', radius: 12 }, { kind: 'ogee', width: 10, band: true }, 0.9],
  ['Cove border', { kind: 'rounded', radius: 12 }, { kind: 'cove', width: 8, band: true }, 0.9],
  ['Bead border', { kind: 'rounded', radius: 12 }, { kind: 'bead', width: 6, band: true }, 0.85],
  ['Rope border', { kind: 'rounded', radius: 12 }, { kind: 'rope', width: 7, pitch: 8, band: true }, 0.8],
  ['Pearl border', { kind: 'rounded', radius: 12 }, { kind: 'pearls', width: 6, pitch: 7, band: true }, 0.8],
  ['Shell', { kind: 'oval' }, { kind: 'shell', ribs: 11 }, 0.4],
  ['Flutes', { kind: 'rectangle' }, { kind: 'flutes', pitch: 9 }, 0.5],
  ['Basket weave', { kind: 'rectangle' }, { kind: 'weave', pitch: 10 }, 0.6],
  ['Gouge marks', { kind: 'rectangle' }, { kind: 'gouge', length: 14, width: 7, seed: 1 }, 0.7],
  ['Ripples', { kind: 'circle' }, { kind: 'ripples', pitch: 9 }, 0.6],
];

interface Props {
  job: SetupView;
  change(edit: (j: SetupView) => void): void;
  onSelect(ids: string[]): void;
}

/** Things that can be added, under a title. */
function Entries({ title, list, onPick }: { title: string; list: Entry[]; onPick(e: Entry): void }) {
  return (
    <>
      <p className="soft px-2 pt-1 text-[13px]">{title}</p>
      <div className="grid grid-cols-2 gap-x-1">
        {list.map((e) => (
          <button
            key={e[0]}
            type="button"
            className="btn btn-ghost btn-sm justify-start px-2 font-normal"
            onClick={() => onPick(e)}
          >
            {e[0]}
          </button>
        ))}
      </div>
    </>
  );
}

/** A file on its way up, with the way to stop it. */
function Uploading({ share, cancel }: { share: number; cancel(): void }) {
  return (
    <div className="mt-2 flex items-center gap-2 text-[13px]" role="status">
      <progress
        className="progress progress-primary flex-1"
        value={share < 1 ? share : undefined}
        max={1}
        aria-label="upload"
      />
      <span className="truncate">{share < 1 ? `${Math.round(share * 100)} %` : 'reading'}</span>
      <button type="button" className="btn btn-xs" onClick={cancel}>
        Cancel
      </button>
    </div>
  );
}

/** What can be put on the board: shapes and textures made here, words, and files. */
export function AddMenu({ job, change, onSelect }: Props) {
  const box = useRef<HTMLDetailsElement>(null);
  const file = useId();
  const client = useQueryClient();
  const [busy, setBusy] = useState<{ name: string; share: number; cancel(): void } | null>(null);
  const [error, setError] = useState<string | null>(null);
  const [notes, setNotes] = useState<string[]>([]);
  const [unsized, setUnsized] = useState<{ file: string; drawing: Drawing } | null>(null);
  const put = (...added: Layer[]) => {
    if (box.current) box.current.open = false;
    setError(null);
    change((j) => j.layers.push(...added));
    onSelect(added.map((l) => l.id));
  };
  const putDrawing = (name: string, drawing: Drawing) => {
    setUnsized(null);
    put(...placeDrawing(job, name, drawing));
  };
  const shape = ([name, outline, relief, share, edge]: Entry) =>
    put(newShape({ id: newId(), name }, outline, relief, job.board, { share, edge }));
  const words = async () => {
    try {
      const { size } = await arranger().measure(NEW_WORDS);
      put(newWords(newId(), NEW_WORDS, size, job.board));
    } catch (e) {
      setError((e as Error).message);
    }
  };
  const take = async (f: File | undefined) => {
    if (!f || busy) return;
    setError(null);
    setNotes([]);
    setUnsized(null);
    const up = uploadAsset(f, (share) => setBusy((b) => b && { ...b, share }));
    setBusy({ name: f.name, share: 0, cancel: up.cancel });
    try {
      const a: AssetInfo = await up.done;
      if (a.info.kind === 'font') setNotes([`${a.file} can now be chosen as the font of words`]);
      else {
        const { drawing } = a.info;
        if (drawing && !drawing.unitKnown) setUnsized({ file: a.file, drawing });
        else if (drawing) putDrawing(a.file, drawing);
        else put(placeFile(job, { file: a.file, hash: a.hash, info: a.info }, null));
        setNotes(a.info.notes);
      }
      // A drawing becomes a shape: there is no file to be kept for it.
      if (a.info.kind === 'drawing') return;
      const kept = await api.keepPattern({
        hash: a.hash,
        name: a.file.replace(/\.[a-z0-9]+$/i, '').slice(0, 80) || 'Relief',
        tags: [],
        from: 'uploaded',
        size: null,
        rise: null,
      });
      client.setQueryData(['patterns'], kept);
    } catch (e) {
      setError((e as Error).message);
    } finally {
      setBusy(null);
    }
  };
  return (
    <div className="px-4 py-2">
      <div className="flex gap-2">
        <details ref={box} className="dropdown flex-1">
          <summary className="btn btn-sm w-full">
            <Plus size={14} aria-hidden /> Add
          </summary>
          <div className="panel dropdown-content z-30 mt-1 max-h-[60vh] w-[270px] overflow-y-auto p-2 shadow-lg">
            <Entries title="Outlines" list={SHAPES} onPick={shape} />
            <Entries title="Forms and textures" list={FORMS} onPick={shape} />
          </div>
        </details>
        <button type="button" className="btn btn-sm flex-1" onClick={() => void words()}>
          Words
        </button>
        <label htmlFor={file} className="btn btn-sm flex-1 has-[:focus-visible]:outline-2">
          File
          <input
            id={file}
            type="file"
            className="sr-only"
            aria-label="Add a file"
            accept=".stl,.obj,.ply,.3mf,.png,.tif,.tiff,.jpg,.jpeg,.webp,.gif,.ttf,.otf,.woff,.svg,.dxf"
            onChange={(e) => {
              void take(e.target.files?.[0]);
              e.target.value = '';
            }}
          />
        </label>
      </div>
      {busy && <Uploading {...busy} />}
      {unsized && (
        <UnitQuestion
          {...unsized}
          onTake={(drawing) => putDrawing(unsized.file, drawing)}
          onLeave={() => setUnsized(null)}
        />
      )}
      {error && (
        <p role="alert" className="mt-1 text-[13px] text-accent">
          {error}
        </p>
      )}
      {notes.map((n) => (
        <p key={n} className="soft mt-1 text-[13px] leading-snug" role="status">
          {n}
        </p>
      ))}
    </div>
  );
}
