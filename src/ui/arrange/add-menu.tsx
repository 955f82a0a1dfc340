'use client';
import { useId, useState } from 'react';
import { freshForm, newTurned } from '@/core/arrange/kinds/turned/fresh';
import type { TurnedForm } from '@/core/arrange/kinds/turned/schema';
import { NEW_WORDS, newShape, newWords } from '@/core/arrange/new-layer';
import type { Layer } from '@/core/doc/layer';
import type { SetupView } from '@/core/setup/view';
import { UploadList } from '../uploads/upload-list';
import { halfTurned, newId } from './actions';
import type { Entry } from './shape-entries';
import { ShapesMenu } from './shapes-menu';
import { UnitQuestion } from './unit-question';
import type { AddFiles } from './use-add-files';
import { arranged } from './use-arrangement';

interface Props {
  job: SetupView;
  change(edit: (j: SetupView) => void): void;
  /** Whether the board is shown half a turn round; what is added stands upright in that view. */
  turned: boolean;
  onSelect(ids: readonly string[]): void;
  /** What selects layers that arrive later, unless something else has been selected by then. */
  selectLater(): (ids: readonly string[]) => void;
  files: AddFiles;
}

/** What can be put on the board: shapes and textures made here, words, and files. */
export function AddMenu({ job, change, onSelect, selectLater, turned, files }: Props) {
  const file = useId();
  const [error, setError] = useState<string | null>(null);
  const put = (added: Layer[], select: Props['onSelect'] = onSelect) => {
    setError(null);
    const upright = turned ? halfTurned(added) : added;
    change((j) => j.layers.push(...upright));
    select(added.map((l) => l.id));
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
            multiple
            onChange={(e) => {
              setError(null);
              files.take([...(e.target.files ?? [])], null);
              e.target.value = '';
            }}
          />
        </label>
      </div>
      <UploadList uploads={files.uploads} />
      {files.unsized.map((u) => (
        <UnitQuestion
          key={u.file}
          {...u}
          onTake={(drawing) => files.settle(u, drawing)}
          onLeave={() => files.settle(u, null)}
        />
      ))}
      {error && (
        <p role="alert" className="mt-1 text-[13px] text-accent">
          {error}
        </p>
      )}
      {files.notes.map((n) => (
        <p key={n} className="soft mt-1 text-[13px] leading-snug" role="status">
          {n}
        </p>
      ))}
    </div>
  );
}
