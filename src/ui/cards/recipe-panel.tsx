'use client';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { ask } from '@/contract/ask';
import { SHOP } from '@/contract/shop';
import { applyEdits } from '@/core/doc/edits';
import { freshId, putting } from '@/core/doc/library';
import type { Recipe } from '@/core/doc/recipe';
import { textOf } from '@/core/findings/texts/text-of';
import { recipeFrom, workBy } from '@/core/plan/recipe';
import { Choice, Folded, TextField } from '../controls/fields';
import type { CardProps } from './card-props';

/** Passes made a recipe of, and a recipe taken to this job, with what did not fit said. */
export function RecipePanel({ job, change, library, bits }: CardProps) {
  const client = useQueryClient();
  const recipes = library?.recipes ?? [];
  const [name, setName] = useState('');
  const [chosen, setChosen] = useState<string | null>(null);
  const [told, setTold] = useState<{ of: string; said: string[] } | null>(null);
  const [kept, setKept] = useState<string | null>(null);
  const [error, setError] = useState<string | null>(null);
  const recipe = recipes.find((r) => r.id === chosen) ?? recipes[0];
  const keep = async () => {
    const title = name || job.name;
    setError(null);
    try {
      const made = recipeFrom(job, freshId(recipes, title), title);
      client.setQueryData(['library'], await ask(SHOP.changeLibrary, {}, putting('recipes', made)));
      setKept(title);
      setChosen(made.id);
    } catch (e) {
      setError((e as Error).message);
    }
  };
  const work = (r: Recipe) => {
    const { edits, said, found } = workBy(job, r, bits);
    change((j) => applyEdits(j.document, edits));
    setTold({ of: r.name, said: [...said, ...found.map((f) => textOf(f).message)] });
  };
  return (
    <div className="px-4 pb-4">
      {told && (
        <div role="status" className="rounded-lg border border-primary px-3 py-2 text-sm leading-snug">
          {told.said.length === 0 ? (
            `${told.of} fits this job as it is.`
          ) : (
            <>
              {told.of} is applied. What did not fit:
              <ul className="mt-1 list-disc pl-4">
                {told.said.map((s) => (
                  <li key={s}>{s}</li>
                ))}
              </ul>
            </>
          )}
          <button type="button" className="btn btn-ghost btn-xs mt-1" onClick={() => setTold(null)}>
            Close
          </button>
        </div>
      )}
      <Folded title="Recipes">
        {recipe ? (
          <>
            <Choice
              label="Recipe"
              value={recipe.id}
              options={recipes.map((r) => [r.id, r.name] as const)}
              onChange={setChosen}
              note="its passes, bits and heights take the place of those here"
            />
            <button type="button" className="btn btn-sm w-full" onClick={() => work(recipe)}>
              Apply this recipe
            </button>
          </>
        ) : (
          <p className="soft text-sm">A way of working that went well can be kept and used again.</p>
        )}
        {job.passes.length > 0 && (
          <>
            <TextField label="New recipe" value={name} max={80} onChange={setName} />
            <button type="button" className="btn btn-sm mt-1 w-full" onClick={() => void keep()}>
              Make my recipe from this job
            </button>
          </>
        )}
        {kept && (
          <p role="status" className="mt-1 text-sm">
            {kept} is kept among the shop's recipes.
          </p>
        )}
        {error && (
          <p role="alert" className="mt-1 text-[13px] text-error">
            {error}
          </p>
        )}
      </Folded>
    </div>
  );
}
