'use client';
import { Upload } from 'lucide-react';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { ask, send } from '@/contract/ask';
import { ASSETS } from '@/contract/assets';
import { JOBS } from '@/contract/jobs';

/** Takes a relief file or an exported job, by dropping or choosing it, and opens the job that it makes; or starts from an empty board. */
export function DropZone() {
  const router = useRouter();
  const input = useRef<HTMLInputElement>(null);
  const [over, setOver] = useState(false);
  const [upload, setUpload] = useState<{ name: string; share: number; cancel(): void } | null>(null);
  const [error, setError] = useState<string | null>(null);

  const take = async (file: File | undefined) => {
    if (!file || upload) return;
    setError(null);
    if (file.size > 2 * 1024 ** 3) {
      setError(`${file.name}: is ${file.size} bytes, more than 2 GB; reduce the model`);
      return;
    }
    const progress = (share: number) => setUpload((u) => u && { ...u, share });
    try {
      if (/\.zip$/i.test(file.name)) {
        const { done, cancel } = send(JOBS.import, { name: file.name }, file, progress);
        setUpload({ name: file.name, share: 0, cancel });
        router.push(`/jobs/${(await done).id}`);
        return;
      }
      const { done, cancel } = send(ASSETS.put, { name: file.name }, file, progress);
      setUpload({ name: file.name, share: 0, cancel });
      const job = await ask(JOBS.create, {}, { asset: (await done).hash });
      router.push(`/jobs/${job.id}`);
    } catch (e) {
      setError((e as Error).message);
      setUpload(null);
    }
  };
  return (
    <section aria-label="New carving">
      <label
        className={`flex min-h-36 cursor-pointer flex-col items-center justify-center gap-1 rounded-xl border-2 border-dashed p-5 text-center has-[:focus-visible]:outline-2 has-[:focus-visible]:outline-primary ${over ? 'border-primary bg-base-100' : 'border-(--wood-line)'}`}
        onDragOver={(e) => {
          e.preventDefault();
          setOver(true);
        }}
        onDragLeave={() => setOver(false)}
        onDrop={(e) => {
          e.preventDefault();
          setOver(false);
          void take(e.dataTransfer.files[0]);
        }}
      >
        <Upload size={22} className="text-primary" aria-hidden />
        <span className="slab text-lg">Drop a relief here, or choose a file</span>
        <span className="soft text-sm">
          A model (STL, OBJ, PLY, 3MF), an image (PNG, TIFF, JPEG, WebP), or a job that was exported here (zip). Board,
          bits and passes are proposed; everything stays open to change.
        </span>
        <input
          ref={input}
          type="file"
          accept=".stl,.obj,.ply,.3mf,.png,.tif,.tiff,.jpg,.jpeg,.webp,.gif,.zip"
          className="sr-only"
          onChange={(e) => {
            void take(e.target.files?.[0]);
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
      {upload && (
        <div className="mt-2 flex items-center gap-3 text-sm" role="status">
          <progress className="progress progress-primary flex-1" value={upload.share} max={1} aria-label="upload" />
          <span>
            {upload.share < 1 ? `${upload.name}, ${Math.round(upload.share * 100)} %` : `reading ${upload.name}`}
          </span>
          <button type="button" className="btn btn-sm" onClick={upload.cancel}>
            Cancel
          </button>
        </div>
      )}
      {error && (
        <p role="alert" className="mt-2 text-sm text-accent">
          {error}
        </p>
      )}
    </section>
  );
}
