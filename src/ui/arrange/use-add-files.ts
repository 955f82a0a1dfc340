import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import { ask, send } from '@/contract/ask';
import { ASSETS, type AssetInfo } from '@/contract/assets';
import { PATTERNS } from '@/contract/patterns';
import type { Layer } from '@/core/doc/layer';
import type { SetupView } from '@/core/setup/view';
import type { Drawing } from '@/core/sources/drawing';
import { Uploads } from '../uploads/uploads';
import { halfTurned, placeDrawing, placeFile } from './actions';

type Place = { x: number; y: number } | null;

interface Props {
  change(edit: (j: SetupView) => void): void;
  /** Whether the board is shown half a turn round; what is added stands upright in that view. */
  turned: boolean;
  /** What selects layers that arrive later, unless something else has been selected by then. */
  selectLater(): (ids: readonly string[]) => void;
}

/** A drawing whose unit has to be asked for. */
export interface Unsized {
  file: string;
  drawing: Drawing;
  at: Place;
}

/** Files that come onto the board: each becomes a layer, and lies in the pattern drawer from then on. */
export interface AddFiles {
  uploads: Uploads;
  /** What was noticed in the files that came last. */
  notes: readonly string[];
  unsized: readonly Unsized[];
  /** @param at where on the board they are put, mm; null for its middle */
  take(files: readonly File[], at: Place): void;
  /** Puts a drawing on the board whose unit has been told, or leaves it out. */
  settle(u: Unsized, drawing: Drawing | null): void;
}

/** Lays a file in the pattern drawer. */
const keepPattern = (a: AssetInfo) =>
  ask(
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

export function useAddFiles(props: Props): AddFiles {
  const client = useQueryClient();
  const latest = useRef(props);
  useEffect(() => {
    latest.current = props;
  });
  const [notes, setNotes] = useState<string[]>([]);
  const [unsized, setUnsized] = useState<Unsized[]>([]);
  const places = useRef(new Map<File, Place>());

  /** Makes layers of the board as it is by then. */
  const put = (make: (j: SetupView) => Layer[], select: (ids: readonly string[]) => void) => {
    let made: Layer[] = [];
    const { change, turned } = latest.current;
    change((j) => {
      made = make(j);
      j.layers.push(...(turned ? halfTurned(made) : made));
    });
    select(made.map((l) => l.id));
  };
  const arrived = async (file: File, a: AssetInfo, select: (ids: readonly string[]) => void): Promise<void> => {
    const at = places.current.get(file) ?? null;
    places.current.delete(file);
    const { drawing, kind } = a.info;
    if (kind === 'font') setNotes((n) => [...n, `${a.file} can now be chosen as the font of words`]);
    else if (drawing && !drawing.unitKnown) setUnsized((u) => [...u, { file: a.file, drawing, at }]);
    else if (drawing) put((j) => placeDrawing(j, a.file, drawing, at), select);
    else put((j) => [placeFile(j, { file: a.file, hash: a.hash, info: a.info }, at)], select);
    setNotes((n) => [...n, ...a.info.notes]);
    // A drawing becomes a shape: there is no file to be kept for it.
    if (kind !== 'drawing') client.setQueryData(['patterns'], await keepPattern(a));
  };
  const begin = useRef((file: File, progress: (share: number) => void) => {
    const select = latest.current.selectLater();
    const up = send(ASSETS.put, { name: file.name }, file, progress);
    return { done: up.done.then((a) => arrived(file, a, select)).then(() => null), cancel: up.cancel };
  });
  const [uploads] = useState(() => new Uploads((f, p) => begin.current(f, p)));
  return {
    uploads,
    notes,
    unsized,
    take: (files, at) => {
      setNotes([]);
      for (const f of files) places.current.set(f, at);
      uploads.take(files);
    },
    settle: (u, drawing) => {
      setUnsized((all) => all.filter((o) => o !== u));
      if (drawing) put((j) => placeDrawing(j, u.file, drawing, u.at), latest.current.selectLater());
    },
  };
}
