'use client';
import { Upload } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { ask } from '@/contract/ask';
import { JOBS } from '@/contract/jobs';
import { UploadList } from '../uploads/upload-list';
import type { Uploads } from '../uploads/uploads';

/** Where reliefs and exported jobs are chosen that become jobs, and what has become of them; or a job starts from an empty board. */
export function DropZone({ uploads, onFiles }: { uploads: Uploads; onFiles(files: File[]): void }) {
  const router = useRouter();
  const [error, setError] = useState<string | null>(null);
  return (
    <section aria-label="New carving">
      <label className="flex min-h-36 cursor-pointer flex-col items-center justify-center gap-1 rounded-xl border-2 border-dashed border-(--wood-line) p-5 text-center has-[:focus-visible]:outline-2 has-[:focus-visible]:outline-primary">
        <Upload size={22} className="text-primary" aria-hidden />
        <span className="slab text-lg">Drop a relief here, or choose a file</span>
        <span className="soft text-sm">
          A model (STL, OBJ, PLY, 3MF), an image (PNG, TIFF, JPEG, WebP), or a job that was exported here (zip). Board,
          bits and passes are proposed; everything stays open to change.
        </span>
        <input
          type="file"
          multiple
          accept=".stl,.obj,.ply,.3mf,.png,.tif,.tiff,.jpg,.jpeg,.webp,.gif,.zip"
          className="sr-only"
          onChange={(e) => {
            onFiles([...(e.target.files ?? [])]);
            e.target.value = '';
          }}
        />
      </label>
      <button
        type="button"
        className="btn btn-sm mt-2"
        onClick={() => {
          setError(null);
          void ask(JOBS.create, {}, {}).then(
            (job) => router.push(`/jobs/${job.id}`),
            (e) => setError((e as Error).message),
          );
        }}
      >
        Start from an empty board
      </button>
      <UploadList uploads={uploads} />
      {error && (
        <p role="alert" className="mt-2 text-sm text-accent">
          {error}
        </p>
      )}
    </section>
  );
}
