import type { SVGProps } from 'react';

/** Words on a drawing, with a rim in the ground's colour, so that they are read over anything. */
export function HaloText({ rim = 3, ...text }: SVGProps<SVGTextElement> & { rim?: number }) {
  return (
    <text
      fill="var(--color-base-content)"
      stroke="var(--color-base-100)"
      strokeWidth={rim}
      paintOrder="stroke"
      {...text}
    />
  );
}
