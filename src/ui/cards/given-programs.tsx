'use client';
import { useMutation, useQuery } from '@tanstack/react-query';
import { FileCheck } from 'lucide-react';
import { useState } from 'react';
import { ask } from '@/contract/ask';
import { JOBS, type Judged, MOST_FILES } from '@/contract/jobs';
import type { Finding } from '@/core/findings/finding';
import { formatDuration } from '@/core/units/length';
import { FindingList } from './finding-list';

/** Wait between two looks at programs that are still being judged, ms. */
const AGAIN = 1000;
/** Most that all files together may have, bytes: they go over in one piece. */
const MOST_BYTES = 7e6;

async function read(files: File[]) {
  const bytes = files.reduce((n, f) => n + f.size, 0);
  if (bytes > MOST_BYTES)
    throw new Error(
      `together they have ${(bytes / 1e6).toFixed(1)} MB; give at most ${MOST_BYTES / 1e6} MB at once, or use ./zg prove`,
    );
  if (files.length > MOST_FILES)
    throw new Error(`${files.length} files are too many; give at most ${MOST_FILES} at once`);
  // In the order of their names, which begin with their number.
  const sorted = [...files].sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }));
  return Promise.all(sorted.map(async (f) => ({ file: f.name, text: await f.text() })));
}

/** What judged programs come to, in a sentence. */
function Verdict({ judged }: { judged: Judged }) {
  const errors = judged.findings.filter((f) => f.severity === 'error').length;
  const seconds = judged.files.reduce((s, f) => s + f.seconds, 0);
  const names = judged.files.map((f) => f.file).join(', ');
  return (
    <p className="my-2 text-sm leading-snug" role="status">
      <span className="break-words">{names}</span>:{' '}
      {errors > 0 ? (
        <b className="text-accent">
          do not cut {judged.files.length === 1 ? 'it' : 'them'}, {errors} {errors === 1 ? 'thing is' : 'things are'}{' '}
          wrong
        </b>
      ) : (
        <b>nothing wrong</b>
      )}
      , {formatDuration(seconds)}.
    </p>
  );
}

/** Programs as they lie in files, edited by hand or written elsewhere: dropped here, they are judged by the same rules as the job's own. */
export function GivenPrograms({
  id,
  picked,
  onPick,
}: {
  id: string;
  picked: Finding | null;
  onPick(f: Finding): void;
}) {
  const [over, setOver] = useState(false);
  const given = useMutation({
    mutationFn: async (files: File[]) => ask(JOBS.prove, { id }, { files: await read(files) }),
  });
  const proof = given.data?.proof;
  const asked = useQuery({
    queryKey: ['given', id, proof],
    queryFn: () => ask(JOBS.proof, { id, proof: proof! }),
    enabled: proof !== undefined,
    initialData: given.data,
    refetchInterval: (q) => (q.state.data?.status === 'planning' && !q.state.error ? AGAIN : false),
    retry: false,
  });
  const judged = proof === undefined ? undefined : asked.data;
  const error = given.error ?? asked.error;
  const take = (files: FileList | null) => {
    if (files && files.length > 0) given.mutate([...files]);
  };
  return (
    <section aria-label="Programs from files" className="mt-4">
      <h3 className="mb-1 font-semibold">Programs from files</h3>
      <label
        className={`flex cursor-pointer items-center gap-2 rounded border border-dashed px-3 py-2 text-sm leading-snug has-[:focus-visible]:outline-2 ${over ? 'border-primary bg-base-200' : 'border-base-300'}`}
        onDragOver={(e) => {
          e.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={(e) => {
          e.preventDefault();
          setOver(false);
          take(e.dataTransfer.files);
        }}
      >
        <FileCheck size={16} aria-hidden className="shrink-0" />
        <span>
          Drop programs that were edited by hand or written elsewhere, or choose them: they cut this board in the order
          of their names.
        </span>
        <input
          type="file"
          multiple
          accept=".nc,.ngc,.cnc,.tap,.txt"
          className="sr-only"
          aria-label="Choose programs"
          onChange={(e) => {
            take(e.target.files);
            e.target.value = '';
          }}
        />
      </label>
      {(given.isPending || judged?.status === 'planning') && (
        <p className="my-2 flex items-center gap-2 text-sm" role="status">
          <progress className="progress flex-1" value={judged?.share ?? 0} max={1} aria-label="Being judged" />
          being judged
        </p>
      )}
      {error && !given.isPending && (
        <p role="alert" className="my-2 text-sm text-accent">
          {error.message}
        </p>
      )}
      {judged?.status === 'failed' && (
        <p role="alert" className="my-2 text-sm text-accent">
          {judged.message}
        </p>
      )}
      {judged?.status === 'known' && (
        <>
          <Verdict judged={judged} />
          <FindingList
            id={id}
            revision=""
            seconds={null}
            findings={judged.findings.map((f) => ({ ...f, fixes: [] }))}
            picked={picked}
            onPick={onPick}
            onFix={() => {}}
          />
        </>
      )}
    </section>
  );
}
