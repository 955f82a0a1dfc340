import type { Layer } from '@/core/doc/layer';
import { clean } from '@/core/units/round';

/** What can be shaped on the drawing of a section. */
export type Handle = 'rise' | 'lift' | 'slope' | 'thin';

export interface HandleFacts {
  label: string;
  unit: 'mm' | '°';
  min: number;
  max: number;
  /** What a key and, with Shift, a larger one changes it by. */
  step: number;
  stride: number;
}

/** The smallest rise that a handle leaves, mm. */
const LEAST_RISE = 0.05;

export const HANDLES: Record<Handle, HandleFacts> = {
  rise: { label: 'Rise', unit: 'mm', min: LEAST_RISE, max: 500, step: 0.1, stride: 1 },
  lift: { label: 'Lift', unit: 'mm', min: -500, max: 500, step: 0.1, stride: 1 },
  slope: { label: 'Slope', unit: '°', min: -80, max: 80, step: 0.5, stride: 5 },
  thin: { label: 'Thinning', unit: 'mm', min: 0, max: 1000, step: 0.1, stride: 1 },
};

/** What several layers have together: the highest rise, the lowest lift, the widest thinning, the first one's slope. */
export function togetherOf(some: Layer[], handle: Handle, axis: 'x' | 'y'): number {
  switch (handle) {
    case 'rise':
      return Math.max(...some.map((l) => l.rise));
    case 'lift':
      return Math.min(...some.map((l) => l.lift));
    case 'slope':
      return some[0].slope[axis];
    case 'thin':
      return Math.max(...some.map((l) => l.thin));
  }
}

const within = (v: number, { min, max }: HandleFacts) => clean(Math.min(max, Math.max(min, v)));

/** Gives layers a value together: rises keep their proportions, lifts their differences; slope and thinning become the same. */
export function putValue(some: Layer[], handle: Handle, axis: 'x' | 'y', value: number): void {
  const facts = HANDLES[handle];
  const was = togetherOf(some, handle, axis);
  for (const l of some) {
    if (handle === 'rise') l.rise = within((l.rise * Math.max(value, facts.min)) / was, facts);
    else if (handle === 'lift') l.lift = within(l.lift + value - was, facts);
    else if (handle === 'slope') l.slope[axis] = within(value, facts);
    else l.thin = within(value, facts);
  }
}

/** A value as a hand's drag leaves it: on whole steps. */
export function onStep(v: number, handle: Handle): number {
  const { step } = HANDLES[handle];
  return clean(Math.round(v / step) * step);
}
