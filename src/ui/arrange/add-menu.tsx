'use client';
import { useQueryClient } from '@tanstack/react-query';
import { useId, useState } from 'react';
import { ask, send } from '@/contract/ask';
import { ASSETS, type AssetInfo } from '@/contract/assets';
import { PATTERNS } from '@/contract/patterns';
import { freshForm, newTurned } from '@/core/arrange/kinds/turned/fresh';
import type { TurnedForm } from '@/core/arrange/kinds/turned/schema';
import { NEW_WORDS, newShape, newWords } from '@/core/arrange/new-layer';
import type { Layer } from '@/core/doc/layer';
import type { SetupView } from '@/core/setup/view';
import type { Drawing } from '@/core/sources/drawing';
import { halfTurned, newId, placeDrawing, placeFile } from './actions';
import type { Entry } from './shape-entries';
import { ShapesMenu } from './shapes-menu';
import { UnitQuestion } from './unit-question';
import { arranged } from './use-arrangement';

interface Props {
  job: SetupView;
  change(edit: (j: SetupView) => void): void;
  /** Whether the board is shown half a turn round; what is added stands upright in that view. */
  turned: boolean;
  onSelect(ids: readonly string[]): void;
  /** What selects layers that arrive later, unless something else has been selected by then. */
  selectLater(): (ids: readonly string[]) => void;
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
export function AddMenu({ job, change, onSelect, selectLater, turned }: Props) {
  const file = useId();
  const client = useQueryClient();
  const [busy, setBusy] = useState<{ name: string; share: number; cancel(): void } | null>(null);
  const [error, setError] = useState<string | null>(null);
  const [notes, setNotes] = useState<string[]>([]);
  const [unsized, setUnsized] = useState<{ file: string; drawing: Drawing } | null>(null);
  const put = (added: Layer[], select: Props['onSelect'] = onSelect) => {
    setError(null);
    const upright = turned ? halfTurned(added) : added;
    change((j) => j.layers.push(...upright));
    select(added.map((l) => l.id));
  };
  const putDrawing = (name: string, drawing: Drawing, select?: Props['onSelect']) => {
    setUnsized(null);
    put(placeDrawing(job, name, drawing), select);
  };
  const shape = ([name, outline, relief, share, edge]: Entry) =>
    put([newShape({ id: newId(), name }, outline, relief, job.board, { share, edge })]);
  const form = (name: string, kind: TurnedForm['kind']) =>
    put([newTurned(newId(), name, freshForm(kind, job.board), job.board)]);
  const words = async () => {
    const select = selectLater();
    try {
      const { size } = await arranged('quick', (a) => a.measure(NEW_WORDS));
      put([newWords(newId(), NEW_WORDS, size, job.board)], select);
    } catch (e) {
      setError((e as Error).message);
    }
  };
  const take = async (f: File | undefined) => {
    if (!f || busy) return;
    setError(null);
    setNotes([]);
    setUnsized(null);
    const select = selectLater();
    const up = send(ASSETS.put, { name: f.name }, f, (share) => setBusy((b) => b && { ...b, share }));
    setBusy({ name: f.name, share: 0, cancel: up.cancel });
    try {
      const a: AssetInfo = await up.done;
      if (a.info.kind === 'font') setNotes([`${a.file} can now be chosen as the font of words`]);
      else {
        const { drawing } = a.info;
        if (drawing && !drawing.unitKnown) setUnsized({ file: a.file, drawing });
        else if (drawing) putDrawing(a.file, drawing, select);
        else put([placeFile(job, { file: a.file, hash: a.hash, info: a.info }, null)], select);
        setNotes(a.info.notes);
      }
      // A drawing becomes a shape: there is no file to be kept for it.
      if (a.info.kind === 'drawing') return;
      const kept = await ask(
        PATTERNS.keep,
        {},
        {
          hash: a.hash,
          name: a.file.replace(/\.[a-z0-9]+$/i, '').slice(0, 80) || 'Relief',
          tags: [],
          from: 'uploaded',
          price: null,
          licence: '',
          size: null,
          rise: null,
        },
      );
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
        <ShapesMenu onPick={shape} onTurned={job.board.drum ? form : null} />
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
