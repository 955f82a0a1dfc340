import type { LayerOf, SourceName } from '../../doc/layer';
import type { ReliefOf } from '../../doc/relief-of';
import type { Drum } from '../../field/drum';
import type { Affine, Polygon } from '../../outline/polygon';
import type { HeightImage } from '../../sources/height-image';
import type { Font } from '../../sources/lettering';
import type { Mesh } from '../../sources/mesh';
import type { DrawingGrid, Piece, Raster } from '../window';

/** What a layer's source holds when it is read: a file's mesh or toned image, a mesh's picture from above, or words' outlines. */
export interface Content {
  mesh?: Mesh;
  image?: HeightImage;
  raster?: Raster;
  polygon?: Polygon;
}

/** What is known of a layer's content besides its heights. */
export interface ContentFacts {
  /** Bits a sample of an image, 0 for others. */
  depth: number;
  /** Whether an image's heights come in visible steps, and how high one is as a share of white; 0 when not. */
  step: number;
  /** Letters that the font does not have. */
  missing: string[];
  /** What words measure in their font, mm; null for others. */
  measured: { x: number; y: number } | null;
  /** Whether it is a model of a recess: its rim stands high and its middle lies low. */
  recess: boolean;
}

export const NO_FACTS: ContentFacts = { depth: 0, step: 0, missing: [], measured: null, recess: false };

/** Where the files of layers come from: read whole by the planner, sent by the server to the page. */
export interface Files {
  /** A model, or what of it is seen from above. @throws SourceError naming the file and the layer */
  mesh(l: LayerOf<'mesh'>): Promise<Pick<Content, 'mesh' | 'raster'>>;
  /** An image's heights before any toning. @throws SourceError naming the file and the layer */
  image(l: LayerOf<'image'>): Promise<HeightImage>;
  /** A font by its id, which is the hash of an uploaded one; its name is for refusals. */
  font(id: string, name: string): Promise<Font>;
}

/** How high a layer stands over its foot at a place on ground that lies at a height over the board's top, mm; null where it has nothing. */
export type OnGround = (x: number, y: number, ground: number) => number | null;

/** One copy of a layer on the board. */
export interface PieceAt<K extends SourceName> {
  layer: LayerOf<K>;
  content: Content;
  frame: Affine;
  grid: DrawingGrid;
  /** The outline of this copy on the board, when the layer is made of one. */
  polygon: Polygon | null;
}

/**
 * One kind of source: all that the rest of the program knows of it. A kind is a folder of its own with its schema, this object and what
 * they need, a line in doc/layer.ts and one in registry.ts; its fields have a line in the interface's registry.
 */
export interface SourceKind<K extends SourceName = SourceName> {
  kind: K;
  /** What a person calls it: in a list, and under its name. */
  name: string;
  described: string;
  /** Hashes of the files that it is made of. */
  files(l: LayerOf<K>): string[];
  /** All that its content depends on, as text. */
  contentKey(l: LayerOf<K>): string;
  /** Whether it follows the axis of a drum: it is not turned on the sheet, and its form says how it goes round and from where it counts. */
  alongAxis?: true;
  /** Whether its contents are large, and many are wanted for a moment only while a figure is being tried. */
  passing: boolean;
  load(l: LayerOf<K>, files: Files): Promise<Content>;
  facts(l: LayerOf<K>, files: Files): Promise<ContentFacts>;
  /** The layer's own outline in its own frame; a kind without one is outlined by what stands on its cells. */
  outline?(l: LayerOf<K>, content: Content): Polygon;
  /** How the ground within its outline is shaped. */
  relief?(l: LayerOf<K>): ReliefOf;
  /** Its heights 0..rise on the grid, before slope, mask and thinning. */
  piece(at: PieceAt<K>): Piece;
  /**
   * How high it stands on other ground than the board's top, where its heights depend on that, as round a drum that is narrower there; what its pieces hold
   * is for ground at the top, and covers wherever it may be. Null for a layer whose heights do not.
   */
  onGround?(l: LayerOf<K>): ((drum: Drum) => OnGround) | null;
  /** Whether it keeps its proportions, and what of its source grows with it. */
  scaled?(l: LayerOf<K>, k: number): void;
  /** Makes what else of its source is a length k times as large, where a whole piece grows: widths of borders and pens, waves of an edge. */
  scaleLengths?(l: LayerOf<K>, k: number): void;
  /** What the report says of it besides what all layers have. */
  report?(l: LayerOf<K>): object;
}
