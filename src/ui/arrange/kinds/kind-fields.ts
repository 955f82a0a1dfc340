import type { FC, PointerEvent } from 'react';
import type { LayerOf, SourceName } from '@/core/doc/layer';
import type { SetupView } from '@/core/setup/view';

/** What the fields of a layer get. */
export interface FieldsProps<K extends SourceName = SourceName> {
  job: SetupView;
  layer: LayerOf<K>;
  change(edit: (j: SetupView) => void): void;
  onSelect(ids: readonly string[]): void;
}

/** What the handles of a layer on the board get. */
export interface HandlesProps<K extends SourceName = SourceName> {
  layer: LayerOf<K>;
  px(x: number): number;
  py(y: number): number;
  /** Where a pointer is on the board, mm. */
  place(e: PointerEvent): { x: number; y: number };
  change(edit: (j: SetupView) => void): void;
}

/** What a layer's card and the board show of what it is made of. */
export interface KindFields<K extends SourceName = SourceName> {
  /** What is changed often, beside its size. */
  Fields?: FC<FieldsProps<K>>;
  /** What is seldom changed, below its place. */
  More?: FC<FieldsProps<K>>;
  /** What of it is taken hold of on the board, besides its corners. */
  Handles?: FC<HandlesProps<K>>;
}
