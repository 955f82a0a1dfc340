import type { Layer } from '@/core/doc/layer';
import type { SetupView } from '@/core/setup/view';
import type { SourceInfo } from '@/core/sources/inspect';
import type { CloseLook, SelectedSection } from './looks';

/** What is needed to shape layers on their section. */
export interface Shaping {
  section: SelectedSection | null;
  axis: 'x' | 'y';
  onAxis(axis: 'x' | 'y'): void;
  change(edit: (j: SetupView) => void): void;
  tryOut(edit: ((j: SetupView) => void) | null): void;
}

export interface LayerCardProps extends Shaping {
  job: SetupView;
  layer: Layer;
  close: CloseLook | null;
  /** What is known of its file, when it has one. */
  info: SourceInfo | null;
  onSelect(ids: string[]): void;
  onRemove(ids: readonly string[]): void;
}
