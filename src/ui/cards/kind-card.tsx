import type { ComponentType } from 'react';
import type { Summary } from '@/contract/wire';
import type { Cutter } from '@/core/cutter/cutter';
import type { Pass, PassKindName, PassOf } from '@/core/doc/pass';
import type { PassSummary } from '@/core/plan/plan-passes';
import type { SetupView } from '@/core/setup/view';

/** A pass as its sentence is told of it. */
export interface Told<P extends Pass = Pass> {
  job: SetupView;
  pass: P;
  cutter: Cutter;
  /** Of this very pass, as planned; undefined while it is not. */
  done: PassSummary | undefined;
  summary: Summary | null;
  /** Seconds that the setup takes otherwise: with level fields left to the ball, or cleared; null while that is not known. */
  otherwise: number | null;
}

/** A pass as its fields change it. */
export interface Edited<P extends Pass = Pass> {
  job: SetupView;
  pass: P;
  cutter: Cutter;
  /** Changes this pass. */
  set(f: (p: P) => void): void;
  change(f: (j: SetupView) => void): void;
  /** Shows another setup. */
  onSetup(id: string): void;
}

/** How the card of a kind of pass differs from others: the interface's side of a PassKind. */
export interface KindCard<K extends PassKindName = PassKindName> {
  /** On the ribbon's blocks, and on the button that adds one. */
  label: string;
  Sentence: ComponentType<Told<PassOf<K>>>;
  Fields: ComponentType<Edited<PassOf<K>>>;
  /** What is seldom changed. */
  More?: ComponentType<Edited<PassOf<K>>>;
}
