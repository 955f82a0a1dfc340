import type { Content, ContentFacts } from '../arrange/kinds/kind';
import type { Layer, SeenLayer } from '../doc/layer';
import type { SetupView } from '../setup/view';

/** Reads what a layer holds from its files. */
export type LoadContent = (l: Layer) => Promise<{ content: Content; facts: ContentFacts }>;

/** What a setup's layers need to be composed. */
export type Composing = Pick<SetupView, 'layers' | 'seat' | 'passes' | 'board' | 'setup'>;

/** Deepest that masks of masked layers are followed. */
const MASKS = 4;

/** The layer that masks another one, itself reached through `depth` masks. */
export function maskedBy({ id, mask }: SeenLayer, all: SeenLayer[], depth: number): SeenLayer | null {
  if (mask.kind !== 'layer' || depth >= MASKS) return null;
  return all.find((o) => o.id === mask.layer && o.id !== id) ?? null;
}
