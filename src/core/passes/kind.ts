import type { Region } from '../arrange/target';
import type { Cutter } from '../cutter/cutter';
import type { Board } from '../doc/board';
import type { OutlineRef } from '../doc/outline-ref';
import type { Pass, PassKindName, PassOf } from '../doc/pass';
import type { Grid } from '../field/height-field';
import type { Found } from '../findings/finding';
import type { Path } from '../motion/path';
import type { Bounds, Polygon } from '../outline/polygon';
import type { SetupView } from '../setup/view';
import type { PassContext } from './context';
import type { CutGround } from './ground';
import type { Slot } from './slots';

/** What of a setup a proposal for a pass goes by. */
export type Proposing = Pick<SetupView, 'document' | 'board' | 'setup' | 'passes'>;

/** A planned pass: its path, and what else is to be known of it, as plain data. */
export interface PlannedPath<F> {
  path: Path;
  facts: F;
}

/** A pass with its bit, as checks look at it before anything is planned. */
export interface PassAt<P extends Pass> {
  view: SetupView;
  pass: P;
  cutter: Cutter;
}

/** A pass that has been planned, as checks look at it. */
export interface PassDone<P extends Pass, F> extends PassAt<P> {
  facts: F;
  /** Width of its trench, mm; 0 where it has none. */
  trench: number;
  ground: CutGround;
}

/**
 * One kind of pass: all that the rest of the program knows of it. A kind is a folder of its own with its schema, this object and what
 * they need, a line in doc/pass.ts and one in registry.ts; its card has a line in the interface's registry.
 */
export interface PassKind<K extends PassKindName = PassKindName, F = unknown> {
  kind: K;
  /** What a person calls it: "roughing". */
  name: string;
  /** What is being done when it is cut, as in "finishing after cutting letters". */
  doing: string;
  /** What it does, in one sentence. */
  sentence: string;
  /** Place in the order of work; kinds of a higher rank come later. */
  rank: number;
  /** Why it cannot come after a kind of a higher rank: goes on from "roughing after finishing ...". */
  late: string;
  /** Whether it cuts what layers make; a setup with nothing else needs no layer. */
  needsLayers: boolean;
  /** Whether what it leaves is rough: the board is shown as it stands after the last such pass. */
  rough: boolean;
  /** Whether arcs are fitted to its moves when they are written. */
  arcs: boolean;
  /** Whether it works round a drum, and whether it works nowhere else. */
  round?: true;
  roundOnly?: true;
  /** What a person who sets Z zero is to know of it, in the head of its program. */
  zeroNote?: string;
  /** Why a bit does not suit it; null when it does. */
  unsuited(cutter: Cutter): string | null;
  /** How well a bit that suits it goes with it: the highest is taken where several are at hand. */
  likes?(cutter: Cutter): number;
  /** The pass that is proposed for a bit. */
  propose(view: Proposing, cutter: Cutter): PassOf<K>;
  /** Largest cell of the height fields at which it is planned well, mm. */
  cell(cutter: Cutter): number;
  /** What its numbers have wrong with each other, with its bit or with its board. */
  problems?(at: PassAt<PassOf<K>>): Found[];
  /** How high the board stands over its top before it, mm on every cell, where what it takes stands over that. */
  tops?(pass: PassOf<K>, board: Board, grid: Grid): Float32Array;
  /** Where it works, for kinds that have neither an area nor an outline: the whole board, or boxes, board coordinates, mm. */
  ground?(pass: PassOf<K>): 'board' | Bounds[];
  /** How far beyond its ground its bit comes, mm; its diameter where left out. */
  beyond?(pass: PassOf<K>, cutter: Cutter): number;
  /** What it has to say of several parts of the board together; where left out, what it says of the first. */
  joinFacts?(all: F[]): F;
  /** Width of the ground around a raised relief that it clears, mm, after roughing with a trench of `rough` mm. */
  trench?(pass: PassOf<K>, cutter: Cutter, rough: number): number;
  plan(ctx: PassContext, pass: PassOf<K>, cutter: Cutter, region: Region): Promise<PlannedPath<F>>;
  /** What it opens in the board that no layer asks for. */
  opens?(at: { pass: PassOf<K>; cutter: Cutter; facts: F; board: Board; outline: Polygon }): Slot[];
  /** The outline that it runs along itself. */
  outline?(pass: PassOf<K>): OutlineRef;
  /** What can be said of it once it is planned, before it is proven. */
  checks?: ((done: PassDone<PassOf<K>, F>) => Found[])[];
}

/** What a finding about a pass is about. */
export const aboutPass = ({ view, pass }: { view: SetupView; pass: Pass }) => ({
  setup: view.setup.id,
  pass: pass.id,
  bit: pass.cutter,
});
