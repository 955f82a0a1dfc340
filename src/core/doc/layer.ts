import { imageSourceSchema } from '../arrange/kinds/image/schema';
import { meshSourceSchema } from '../arrange/kinds/mesh/schema';
import { shapeSourceSchema } from '../arrange/kinds/shape/schema';
import { turnedSourceSchema } from '../arrange/kinds/turned/schema';
import { wordsSourceSchema } from '../arrange/kinds/words/schema';
import { outlineSchema } from '../outline/shapes';
import { z } from '../units/zod';
import { coordinate, finite, id, name, place, size, type Turning } from './parts';

/** What each kind of source holds: a new kind has a line here and one in arrange/kinds/registry.ts. */
export const sourceSchema = z.discriminatedUnion('kind', [
  meshSourceSchema,
  imageSourceSchema,
  shapeSourceSchema,
  wordsSourceSchema,
  turnedSourceSchema,
]);
export type LayerSource = z.infer<typeof sourceSchema>;
export type SourceName = LayerSource['kind'];
export type SourceOf<K extends SourceName> = Extract<LayerSource, { kind: K }>;

export const JOINS = ['stack', 'carve', 'highest', 'lowest', 'blend'] as const;
export type Join = (typeof JOINS)[number];

export const copiesSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('one') }),
  z.object({
    kind: z.literal('rows'),
    columns: z.number().int().min(1).max(60),
    rows: z.number().int().min(1).max(60),
    /** From one's middle to the next. */
    dx: coordinate,
    dy: coordinate,
  }),
  z.object({
    kind: z.literal('ring'),
    count: z.number().int().min(1).max(200),
    radius: finite.min(0).max(5000),
    /** Each is turned with the ring, or all stand upright. */
    turning: z.boolean(),
  }),
  /** Evenly along a stroke: SVG path data in mm from the layer's middle, y down. */
  z.object({
    kind: z.literal('path'),
    count: z.number().int().min(1).max(200),
    d: z.string().min(1).max(20_000),
    turning: z.boolean(),
  }),
]);
export type Copies = z.infer<typeof copiesSchema>;

export const maskSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('none') }),
  /** An outline that goes with the layer: its size, and its middle from the layer's. */
  z.object({
    kind: z.literal('outline'),
    outline: outlineSchema,
    x: size,
    y: size,
    dx: coordinate,
    dy: coordinate,
    outside: z.boolean(),
  }),
  /** Another layer's silhouette, larger by `grow`. */
  z.object({ kind: z.literal('layer'), layer: id, grow: finite.min(-500).max(500), outside: z.boolean() }),
]);
export type Mask = z.infer<typeof maskSchema>;

export const layerSchema = z.object({
  id,
  name,
  hidden: z.boolean(),
  locked: z.boolean(),
  /** Layers of the same group are handled together. */
  group: z.string().min(1).max(64).nullable(),
  /** Layers of a board's setups that share this name are one: a change of one changes all, mirrored where the board is turned over. */
  shared: z.string().min(1).max(64).nullable(),
  source: sourceSchema,
  size: z.object({ x: size, y: size }),
  /** Its own height, and how far its foot is raised. */
  rise: finite.positive().max(500),
  lift: finite.min(-500).max(500),
  centre: place,
  turn: finite.min(-360).max(360),
  mirror: z.boolean(),
  /** Whether it was drawn as a drum is seen from the front, and has been made pi / 2 times as wide around it for that. */
  fromFront: z.boolean(),
  /** Slopes of the whole layer along its own x and y. */
  slope: z.object({ x: finite.min(-80).max(80), y: finite.min(-80).max(80) }),
  /** Width over which it is thinned towards its edge. */
  thin: finite.min(0).max(1000),
  /** Turns heights over: high places lie deepest. */
  invert: z.boolean(),
  join: z.enum(JOINS),
  /** For blend: how much of this layer shows. */
  amount: finite.min(0).max(1),
  copies: copiesSchema,
  mask: maskSchema,
});
export type Layer = z.infer<typeof layerSchema>;
/** A layer of one kind of source. */
export type LayerOf<K extends SourceName> = Layer & { source: SourceOf<K> };

export const isOf = <K extends SourceName>(l: Layer, kind: K): l is LayerOf<K> => l.source.kind === kind;

/** A layer as a setup sees it: `turnedIn` says how the board is turned where its own setup lies the other way up. */
export type SeenLayer = Layer & { turnedIn?: Turning };

/** What a new layer has unless it is said otherwise. */
export const PLAIN_LAYER = {
  hidden: false,
  locked: false,
  group: null,
  shared: null,
  lift: 0,
  turn: 0,
  mirror: false,
  fromFront: false,
  slope: { x: 0, y: 0 },
  thin: 0,
  invert: false,
  join: 'stack',
  amount: 1,
  copies: { kind: 'one' },
  mask: { kind: 'none' },
} as const satisfies Partial<Layer>;

/** Sides of a thing along an axis: its low edge, middle or high edge. */
const side = z.enum(['low', 'middle', 'high']);

/** A distance that is kept: `of`'s side lies `distance` mm beyond `from`'s, along the axis; along z from the underside to the top. */
export const gapSchema = z.object({
  id,
  axis: z.enum(['x', 'y', 'z']),
  of: id,
  ofSide: side,
  /** A layer, or the board. */
  from: id,
  fromSide: side,
  distance: finite.min(-10_000).max(10_000),
});
export type Gap = z.infer<typeof gapSchema>;

/** What `from` of a gap says when it means the board itself. */
export const THE_BOARD = 'board';

export const seatSchema = z.object({
  /** raised: the ground around is cleared; sunk: all outside the outline keeps the board's own top. */
  mode: z.enum(['raised', 'sunk']),
  /** Board above the highest point before cutting; the rest is backing below. */
  skin: finite.min(0).max(200),
  /** For a sunk piece: how far its base plane lies below the board's top less the skin. */
  drop: finite.min(0).max(500),
  /** Presses what stands above a height (or lies below a depth, when sunk) by a factor, so that a piece fits its board. */
  press: z.object({ above: finite.min(0).max(500), factor: finite.min(0).max(1) }).nullable(),
});
export type Seat = z.infer<typeof seatSchema>;
