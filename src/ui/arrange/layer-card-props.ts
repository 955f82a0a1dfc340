import type { Layer } from '@/core/doc/layer';
import type { SetupView } from '@/core/setup/view';
import type { SourceInfo } from '@/core/sources/inspect';
import type { CloseLook } from './looks';

export interface LayerCardProps {
  job: SetupView;
  layer: Layer;
  close: CloseLook | null;
  /** What is known of its file, when it has one. */
  info: SourceInfo | null;
  change(edit: (j: SetupView) => void): void;
  onSelect(ids: string[]): void;
}
