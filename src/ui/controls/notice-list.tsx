'use client';
import { X } from 'lucide-react';
import { useSyncExternalStore } from 'react';
import { notices } from './notices';

/** Notices of what was done, in a corner of every page. */
export function NoticeList() {
  const { all } = useSyncExternalStore(notices.subscribe, notices.get, notices.get);
  return (
    <div
      className="pointer-events-none fixed bottom-4 left-1/2 z-40 flex -translate-x-1/2 flex-col gap-2"
      role="status"
    >
      {all.map((n) => (
        <div
          key={n.id}
          className="panel pointer-events-auto flex items-center gap-2 py-1.5 pr-1.5 pl-4 text-sm shadow-lg"
        >
          <span>{n.text}</span>
          {n.undo && (
            <button
              type="button"
              className="btn btn-sm"
              onClick={() => {
                n.undo?.();
                notices.leave(n.id);
              }}
            >
              Undo
            </button>
          )}
          <button
            type="button"
            className="btn btn-ghost btn-square btn-sm"
            aria-label="Take this notice away"
            onClick={() => notices.leave(n.id)}
          >
            <X size={14} aria-hidden />
          </button>
        </div>
      ))}
    </div>
  );
}
