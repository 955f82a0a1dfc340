'use client';
import type { ReactNode } from 'react';
import type { SelectedSection } from './looks';
import { DRAWING, type Scale } from './section-scale';

interface Props {
  section: SelectedSection;
  scale: Scale;
  label: string;
  children: ReactNode;
}

/** A section through what is selected: what lies beneath, what it makes of it, and what shows in the end, with handles on it. */
export function SectionDrawing({ section, scale, label, children }: Props) {
  const { width, height } = DRAWING;
  const n = section.beneath.length;
  const path = (a: Float32Array) =>
    Array.from(
      a,
      (v, k) => `${k === 0 ? 'M' : 'L'}${scale.x((k / (n - 1)) * section.length).toFixed(1)} ${scale.y(v).toFixed(1)}`,
    ).join('');
  const [left, right] = [scale.x(0).toFixed(1), scale.x(section.length).toFixed(1)];
  return (
    // biome-ignore lint/a11y/useSemanticElements: a drawing with handles on it
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className="w-full rounded-lg border border-base-300 bg-(--paper) select-none"
      aria-label={label}
      role="group"
    >
      <path d={`${path(section.end)}L${right} ${height}L${left} ${height}Z`} fill="var(--wood)" fillOpacity={0.55} />
      <path d={path(section.end)} fill="none" stroke="var(--color-base-content)" strokeWidth={1.4} />
      <path
        d={path(section.beneath)}
        fill="none"
        stroke="var(--color-base-content)"
        strokeOpacity={0.55}
        strokeDasharray="3 3"
      />
      <path d={path(section.withThem)} fill="none" stroke="var(--color-primary)" strokeWidth={1.6} />
      {children}
    </svg>
  );
}
