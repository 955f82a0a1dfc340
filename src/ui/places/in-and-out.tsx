import { Download, Upload } from 'lucide-react';
import { useRef } from 'react';
import { drawerToCsv } from '@/core/doc/drawer-csv';
import type { Library, Shelf } from '@/core/doc/library';
import { download, shelfToJson } from './place-files';

/** Writes a shelf to a file, and takes one in. */
export function InAndOut({ library, shelf, onFile }: { library: Library; shelf: Shelf; onFile(file: File): void }) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <div className="flex flex-wrap gap-1 border-t border-base-300 p-2">
      <button
        type="button"
        className="btn btn-ghost btn-sm"
        onClick={() => download(shelfToJson(library, shelf), `${shelf}.json`, 'application/json')}
      >
        <Download size={15} aria-hidden /> JSON
      </button>
      {shelf === 'cutters' && (
        <button
          type="button"
          className="btn btn-ghost btn-sm"
          onClick={() => download(drawerToCsv(library.cutters), 'cutters.csv', 'text/csv')}
        >
          <Download size={15} aria-hidden /> CSV
        </button>
      )}
      <button type="button" className="btn btn-ghost btn-sm" onClick={() => input.current?.click()}>
        <Upload size={15} aria-hidden /> Import a file
      </button>
      <input
        ref={input}
        type="file"
        accept={shelf === 'cutters' ? '.json,.csv' : '.json'}
        aria-label="File to import"
        className="hidden"
        onChange={(e) => {
          const [file] = e.target.files ?? [];
          if (file) onFile(file);
          e.target.value = '';
        }}
      />
    </div>
  );
}
