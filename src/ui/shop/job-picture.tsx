'use client';
import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef } from 'react';
import { fetchView } from '../api';
import { shade, themeColour } from '../board-view/shade';
import { useDark } from '../theme-switch';

/** The cut board of a finished plan as a small picture. */
export function JobPicture({ plan, name }: { plan: string | null; name: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [dark] = useDark();
  const view = useQuery({
    queryKey: ['view', plan],
    queryFn: () => fetchView(plan!),
    enabled: plan !== null,
    staleTime: Infinity,
    retry: 0,
  });
  useEffect(() => {
    void dark;
    const c = canvas.current;
    if (!c || !view.data) return;
    const { grid, cut, mask } = view.data;
    const image = shade({ grid, heights: cut, mask, paper: themeColour('--paper'), hatch: themeColour('--hatch') });
    c.width = image.width;
    c.height = image.height;
    c.getContext('2d')?.putImageData(image, 0, 0);
  }, [view.data, dark]);
  return (
    <div className="flex h-36 items-center justify-center overflow-hidden rounded-t-lg bg-base-300/50">
      {view.data ? (
        <canvas
          ref={canvas}
          role="img"
          aria-label={`${name}, the proven cut from above`}
          className="max-h-full max-w-full"
        />
      ) : (
        <span className="soft text-sm">{plan === null ? 'not proven yet' : 'drawing'}</span>
      )}
    </div>
  );
}
