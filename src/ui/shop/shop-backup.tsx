'use client';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { Download, Upload } from 'lucide-react';
import { useState } from 'react';
import { ask } from '@/contract/ask';
import { addressOf } from '@/contract/endpoint';
import { SHOP } from '@/contract/shop';

const files = (n: number) => `${n} ${n === 1 ? 'file' : 'files'}`;

/** The whole shop as one file to be kept elsewhere, and the way back from one. */
export function ShopBackup({ jobs }: { jobs: number }) {
  const client = useQueryClient();
  const [chosen, setChosen] = useState<File | null>(null);
  const restore = useMutation({
    mutationFn: (file: File) => ask(SHOP.restore, jobs > 0 ? { replace: 'yes' } : {}, file),
    onSettled: () => {
      setChosen(null);
      return client.invalidateQueries();
    },
  });
  return (
    <section aria-label="Backup">
      <h2 className="slab mb-2 text-xl">Backup</h2>
      <p className="soft mb-2 text-sm">
        All jobs with their versions, patterns, bits, machines and files, in one archive. Programs are planned again
        from it.
      </p>
      <div className="flex flex-wrap gap-2">
        <a className="btn btn-sm" href={addressOf(SHOP.backup, {})} download>
          <Download size={14} aria-hidden /> Download a backup
        </a>
        <label className="btn btn-sm has-[:focus-visible]:outline-2">
          <Upload size={14} aria-hidden /> Restore a backup
          <input
            type="file"
            accept=".gz"
            className="sr-only"
            disabled={restore.isPending}
            onChange={(e) => {
              const file = e.target.files?.[0] ?? null;
              e.target.value = '';
              if (file && jobs === 0) restore.mutate(file);
              else setChosen(file);
            }}
          />
        </label>
      </div>
      {chosen && (
        <div role="alert" className="mt-2 rounded-lg border border-accent px-3 py-2 text-sm leading-snug">
          {chosen.name} takes the place of this shop and its {jobs} {jobs === 1 ? 'job' : 'jobs'}. What is here now is
          kept beside it, in a folder of its own.
          <div className="mt-2 flex gap-2">
            <button type="button" className="btn btn-sm" onClick={() => restore.mutate(chosen)}>
              Replace this shop
            </button>
            <button type="button" className="btn btn-ghost btn-sm" onClick={() => setChosen(null)}>
              Leave it as it is
            </button>
          </div>
        </div>
      )}
      <p role="status" className="mt-2 text-sm">
        {restore.isPending && 'The backup is read and checked.'}
        {restore.data &&
          `Restored: ${restore.data.jobs} ${restore.data.jobs === 1 ? 'job' : 'jobs'}, ${files(restore.data.files)}.${
            restore.data.before ? ` What was here is kept in ${restore.data.before}.` : ''
          }`}
      </p>
      {restore.error && (
        <p role="alert" className="text-sm text-accent">
          {restore.error.message}
        </p>
      )}
    </section>
  );
}
