'use client';
import { cutterOf, setupsOf } from '@/core/doc/job';
import { freshId } from '@/core/doc/library';
import type { Pass } from '@/core/doc/pass';
import type { Recipe } from '@/core/doc/recipe';
import { setupView } from '@/core/setup/view';
import { sayLength } from '@/core/units/say';
import { cardOf } from '../cards/kind-registry';
import { TextField } from '../controls/fields';
import type { Place } from './place';
import { PlacePage } from './place-page';

const passesOf = (r: Recipe) => setupsOf(r.job).flatMap((p) => p.setup.passes);

/** What a pass takes at once, as far as its kind has such figures. */
function figuresOf(p: Pass): string {
  const figures: string[] = [];
  if ('stepover' in p) figures.push(`stepover ${sayLength(p.stepover)}`);
  if ('stepdown' in p) figures.push(`stepdown ${sayLength(p.stepdown)}`);
  if ('stockToLeave' in p) figures.push(`leaves ${sayLength(p.stockToLeave)}`);
  if ('peck' in p) figures.push(`${sayLength(p.peck)} at once`);
  if ('tabs' in p)
    figures.push(p.tabs.count > 0 ? `${p.tabs.count} tabs of ${sayLength(p.tabs.thickness)}` : 'no tabs');
  return figures.join(', ');
}

/** One recipe: its passes in their order with their bits, and where it was found. */
function RecipeCard({ recipe, set }: { recipe: Recipe; set(edit: (r: Recipe) => void): void }) {
  const { board, machine, setup, cutters } = setupView(recipe.job);
  const { approach, between, everything } = setup.heights;
  return (
    <div className="max-w-2xl">
      <TextField label="Name" value={recipe.name} max={80} required onChange={(v) => set((r) => (r.name = v))} />
      <TextField label="Note" value={recipe.note} max={1000} onChange={(v) => set((r) => (r.note = v))} />
      <ol className="mt-3 divide-y divide-base-300 border-y border-base-300">
        {passesOf(recipe).map((p, i) => (
          <li key={p.id} className="grid grid-cols-[1.5rem_8rem_1fr] gap-x-3 py-1.5 text-sm">
            <span className="soft">{i + 1}</span>
            <b>{cardOf(p).label}</b>
            <span>
              {cutterOf({ cutters }, p)?.name ?? 'bit missing'}
              <span className="soft block">{figuresOf(p)}</span>
            </span>
          </li>
        ))}
      </ol>
      <p className="soft mt-2 text-sm leading-snug">
        Found in {board.material.name}, {sayLength(board.thickness)} thick, on {machine.name}. Heights:{' '}
        {sayLength(approach)} for approaching, {sayLength(between)} between areas, {sayLength(everything)} over
        everything. In another job it asks that job's own machine, board and layers, and says what did not fit.
      </p>
    </div>
  );
}

const RECIPES: Place<'recipes'> = {
  shelf: 'recipes',
  title: 'Recipes',
  one: 'recipe',
  many: 'recipes',
  sorted: (all) => all.sort((a, b) => a.name.localeCompare(b.name)),
  mark: () => null,
  heading: (r) => r.name,
  line: (r) =>
    `${setupView(r.job).board.material.name}: ${passesOf(r)
      .map((p) => cardOf(p).label.toLowerCase())
      .join(', ')}`,
  fresh: null,
  howTo: 'Open a job, go to its passes and make a recipe of them',
  copy: (r, all) => {
    const name = `${r.name} copy`.slice(0, 80);
    return { ...structuredClone(r), id: freshId(all, name), name };
  },
  card: (r, set) => <RecipeCard recipe={r} set={set} />,
};

/** The shop's ways of working. */
export const RecipesPlace = () => <PlacePage place={RECIPES} />;
