'use client';
import type { ReactNode } from 'react';
import { useDropzone } from 'react-dropzone';

/** A page that takes files wherever on it they are let go; none of them leads the browser away from it. */
export function DropAnywhere({
  says,
  onFiles,
  className,
  children,
}: {
  /** What becomes of them. */
  says: string;
  onFiles(files: File[], at: { x: number; y: number }): void;
  className?: string;
  children: ReactNode;
}) {
  const { getRootProps, isDragActive } = useDropzone({
    noClick: true,
    noKeyboard: true,
    getFilesFromEvent: async (e) => [...(('dataTransfer' in e && e.dataTransfer?.files) || [])],
    onDrop: (files, _, e) => {
      const { clientX = 0, clientY = 0 } = e as Partial<DragEvent>;
      if (files.length > 0) onFiles(files, { x: clientX, y: clientY });
    },
  });
  return (
    <div {...getRootProps({ className: className ?? 'min-h-screen', role: undefined, tabIndex: undefined })}>
      {children}
      {isDragActive && (
        <div className="pointer-events-none fixed inset-0 z-50 flex items-end justify-center border-4 border-dashed border-primary bg-base-200/60 pb-10">
          <p className="panel slab px-6 py-3 text-xl shadow-xl">{says}</p>
        </div>
      )}
    </div>
  );
}
