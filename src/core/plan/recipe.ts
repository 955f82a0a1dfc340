import type { Cutter } from '../cutter/cutter';
import { inSetup, withEdits } from '../doc/edits';
import { cutterOf, type Job, setupsOf } from '../doc/job';
import { freshId } from '../doc/library';
import { fitsCollet } from '../doc/machine';
import { bornBy } from '../doc/material';
import { layersNamed, outlineOfPass, type Pass, type PassKindName } from '../doc/pass';
import type { Recipe } from '../doc/recipe';
import type { Edit } from '../findings/edit';
import type { Finding } from '../findings/finding';
import { freeId } from '../passes/proposals';
import { kindOf } from '../passes/registry';
import { bitFor } from '../passes/with-bit';
import { type SetupView, setupView } from '../setup/view';
import { sayFeed, sayLength } from '../units/say';
import { fittedTo } from './at-hand';
import { problems } from './problems';

/** The way of working of a setup, without its layers and what holds its board. */
export function recipeFrom(view: SetupView, id: string, name: string): Recipe {
  const used = new Set(view.passes.map((p) => p.cutter));
  const named = new Set(view.passes.flatMap(layersNamed));
  const job: Job = structuredClone({
    ...view.document,
    name,
    order: '',
    boards: [
      {
        ...view.board,
        setups: [
          {
            ...view.setup,
            layers: [],
            gaps: [],
            holding: [],
            references: { cross: null, ticks: [], spots: [] },
          },
        ],
      },
    ],
    cutters: view.cutters.filter((c) => used.has(c.id)),
  });
  // Tabs place themselves on another outline.
  for (const p of job.boards[0].setups[0].passes) if (p.kind === 'cutout') p.tabs.at = null;
  const layers = Object.fromEntries(view.layers.filter((l) => named.has(l.id)).map((l) => [l.id, l.name]));
  return { id, name, note: '', layers, job };
}

/** What a recipe comes to in a job. */
export interface Worked {
  edits: Edit[];
  /** What of it did not fit there and was changed, in sentences. */
  said: string[];
  /** What is wrong in the document then that was not before. */
  found: Finding[];
}

/** Figures that go by the material; taken from the recipe where the board is of the same. */
const BY_MATERIAL = ['stepdown', 'peck', 'stockToLeave', 'rampAngle'] as const;
/** Figures that go by the bit as well. */
const BY_BIT = ['stepover', ...BY_MATERIAL] as const;

/** Whether two bits have the same edges, whatever they are called and however long they are. */
const same = (a: Cutter, b: Cutter) =>
  (['shape', 'diameter', 'cornerRadius', 'tipDiameter', 'taperAngle', 'includedAngle'] as const).every(
    (k) => a[k] === b[k],
  );

/** One recipe being applied: bits are chosen once each, what is said is said once. */
class Applying {
  readonly said: string[] = [];
  readonly cutters: Cutter[];
  private readonly chosen = new Map<string, Cutter | null>();
  private readonly ids = new Set<string>();
  /** Whether the board is of the material that the recipe's figures were found in. */
  private readonly familiar: boolean;

  constructor(
    private readonly view: SetupView,
    private readonly recipe: Recipe,
    private readonly from: SetupView,
    private readonly drawer: Cutter[],
  ) {
    const others = setupsOf(view.document).filter((p) => p.setup.id !== view.setup.id);
    const used = new Set(others.flatMap((p) => p.setup.passes.map((q) => q.cutter)));
    this.cutters = view.cutters.filter((c) => used.has(c.id));
    this.familiar = from.board.material.id === view.board.material.id;
    if (!this.familiar && from.passes.length > 0)
      this.said.push(
        `its figures were found in ${from.board.material.name}: stepdown, stock to leave and ramp are proposed for ${view.board.material.name} instead`,
      );
  }

  /** The bit that stands for the recipe's own here; null where none does. */
  private bitOf(own: Cutter, kind: PassKindName): Cutter | null {
    const had = this.chosen.get(`${kind} ${own.id}`);
    if (had !== undefined) return had;
    const { machine } = this.view;
    const atHand = [...this.view.cutters, ...this.drawer].filter((c) => fitsCollet(machine, c));
    const like = atHand.find((c) => c.id === own.id && same(c, own)) ?? atHand.find((c) => same(c, own));
    let bit = like ?? (fitsCollet(machine, own) ? own : null);
    if (!bit) {
      bit = bitFor(
        kind,
        atHand.filter((c) => c.shape === own.shape),
      );
      this.said.push(
        bit
          ? `no collet of ${machine.name} takes the ${sayLength(own.shankDiameter, 3)} shank of ${own.name}: ${bit.name} takes its place, with its own proposed figures`
          : `no collet of ${machine.name} takes the ${sayLength(own.shankDiameter, 3)} shank of ${own.name}, and no bit of its shape fits: ${kindOf(kind).name} is left out`,
      );
    } else if (!like) this.said.push(`${own.name} is not in the drawer; its copy from the recipe is taken`);
    else if (like.feed !== own.feed || like.plunge !== own.plunge || like.rpm !== own.rpm)
      this.said.push(
        `${like.name} keeps the feeds that it has here, ${sayFeed(like.feed)} and down ${sayFeed(like.plunge)} at ${like.rpm} rpm; the recipe had ${sayFeed(own.feed)}, ${sayFeed(own.plunge)} and ${own.rpm} rpm`,
      );
    if (bit) bit = this.brought(bit);
    this.chosen.set(`${kind} ${own.id}`, bit);
    return bit;
  }

  /** A bit among the job's, with a number of its own, run as the machine can. */
  private brought(bit: Cutter): Cutter {
    const there = this.cutters.find((c) => c.id === bit.id);
    if (there && same(there, bit)) return there;
    const fitted = fittedTo(this.view.machine, bit);
    if (fitted.rpm !== bit.rpm || fitted.feed !== bit.feed || fitted.plunge !== bit.plunge)
      this.said.push(
        `${bit.name} runs at ${fitted.rpm} rpm and ${sayFeed(fitted.feed)} here instead of ${bit.rpm} and ${sayFeed(bit.feed)}: more than ${this.view.machine.name} does`,
      );
    const taken = new Set(this.cutters.map((c) => c.number));
    let number = bit.number;
    while (taken.has(number)) number++;
    // Another bit may have its id in another setup.
    const made = { ...fitted, number, id: there ? freshId(this.cutters, bit.id) : bit.id };
    this.cutters.push(made);
    return made;
  }

  /** A pass as it works here; null where it cannot. */
  pass(own: Pass): Pass | null {
    const cutter = cutterOf(this.from, own);
    const kind = kindOf(own);
    if (!cutter) return null;
    const bit = this.bitOf(cutter, own.kind);
    if (!bit) return null;
    const made = structuredClone(own);
    made.id = this.freshId(own.kind);
    made.cutter = bit.id;
    const proposed = kind.propose(this.view, bornBy(this.view.board.material, bit)) as unknown as Record<
      string,
      unknown
    >;
    const figures: readonly string[] = same(bit, cutter) ? (this.familiar ? [] : BY_MATERIAL) : BY_BIT;
    for (const key of figures) if (key in made && key in proposed) Object.assign(made, { [key]: proposed[key] });
    this.place(made);
    return 'places' in made && made.places.length === 0 ? null : made;
  }

  private freshId(kind: PassKindName): string {
    const free = freeId(kind, this.view);
    let id = free;
    for (let n = 2; this.ids.has(id); n++) id = `${free}-${n}`;
    this.ids.add(id);
    return id;
  }

  /** Puts a pass where it belongs on this board: layers are known by their names, places by where the board is. */
  private place(p: Pass): void {
    const { board, layers } = this.view;
    const what = kindOf(p).name;
    const ref = outlineOfPass(p);
    if (ref) {
      const here = (ids: string[]) =>
        ids.flatMap((id) => {
          const name = this.recipe.layers[id];
          const found = layers.find((l) => l.name === name);
          if (!found) this.said.push(`${what}: there is no layer ${name ?? id} here; its outline goes without it`);
          return found ? [found.id] : [];
        });
      const of = ref.of && here(ref.of);
      if (ref.of && of?.length === 0) this.said.push(`${what}: it goes by the outline of the whole piece instead`);
      ref.of = of && of.length > 0 ? of : null;
      ref.less = here(ref.less);
    }
    if ('area' in p && p.area.kind === 'frame' && (p.area.x1 > board.x || p.area.y1 > board.y)) {
      this.said.push(
        `${what}: its frame of ${sayLength(p.area.x1 - p.area.x0)} by ${sayLength(p.area.y1 - p.area.y0)} does not lie on this board; it takes the board's face`,
      );
      p.area = { kind: 'face' };
    }
    if ('places' in p) {
      const on = p.places.filter((q) => q.x >= 0 && q.y >= 0 && q.x <= board.x && q.y <= board.y);
      if (on.length < p.places.length)
        this.said.push(
          `${what}: ${p.places.length - on.length} of ${p.places.length} places lie off this board and are left out`,
        );
      p.places = on;
    }
  }
}

/**
 * A setup worked by a recipe: its passes, their bits and its heights instead of those that it has. What of the recipe does not fit this
 * machine, board, drawer or its layers is changed and said; what is then still wrong in the document is found by its checks.
 */
export function workBy(view: SetupView, recipe: Recipe, drawer: Cutter[]): Worked {
  const from = setupView(recipe.job);
  const a = new Applying(view, recipe, from, drawer);
  const passes = from.passes.flatMap((p) => a.pass(p) ?? []);
  const edits: Edit[] = [
    { set: inSetup(view, 'passes'), to: passes },
    { set: ['cutters'], to: a.cutters },
    { set: inSetup(view, 'heights'), to: from.setup.heights },
  ];
  const before = new Set(problems(view.document).map((f) => f.id));
  const found = problems(withEdits(view.document, edits)).filter((f) => !before.has(f.id));
  return { edits, said: [...new Set(a.said)], found };
}
