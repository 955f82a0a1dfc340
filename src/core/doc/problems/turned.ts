import type { Edit } from '../../findings/edit';
import type { Fix, Found } from '../../findings/finding';
import { inSetup } from '../edits';
import { type Job, type Place, setupsOf } from '../job';
import { isOf, type LayerOf } from '../layer';
import { problem } from './problem';
import { setupPath } from './references';

/** A turned form goes no further down than leaves this around the axis, mm. */
const AXIS = 1;

/** Makes a form so deep, its foot with it where that counts from the blank's circle. */
function deepens(at: Place, layer: LayerOf<'turned'>, rise: number): Edit[] {
  const own = inSetup(at, 'layers', { id: layer.id });
  const counts = layer.join === 'lowest' && layer.lift === -layer.rise;
  return [{ set: [...own, 'rise'], to: rise }, ...(counts ? [{ set: [...own, 'lift'], to: -rise }] : [])];
}

function ofLayer(at: Place, layer: LayerOf<'turned'>, path: (string | number)[]): Found[] {
  const { board, setup } = at;
  const { form } = layer.source;
  const subject = { setup: setup.id, layer: layer.id };
  const own = ['layers', { id: layer.id }] as const;
  const told = (rule: string, field: (string | number)[], figures: Found['figures'], fixes: Fix[]) =>
    problem(rule, [...path, ...field], { layer: layer.name, ...figures }, { subject, fixes });
  if (!board.drum)
    return [
      told('turned-flat-board', ['source'], {}, [
        { id: 'remove-layer', figures: { layer: layer.name }, edits: [{ remove: inSetup(at, ...own) }] },
      ]),
    ];
  const out: Found[] = [];
  if (layer.turn !== 0)
    out.push(
      told('turned-askew', ['turn'], { turn: layer.turn }, [
        { id: 'turn-back', figures: {}, edits: [{ set: inSetup(at, ...own, 'turn'), to: 0 }] },
      ]),
    );
  const most = board.thickness - AXIS;
  if (layer.rise > most)
    out.push(
      told('turned-deep', ['rise'], { rise: layer.rise, radius: board.thickness, most }, [
        { id: 'turned-less', figures: { most }, edits: deepens(at, layer, most) },
      ]),
    );
  if (form.kind === 'flutes' && form.section.kind === 'ball' && layer.rise > form.section.radius)
    out.push(
      told('flute-deep', ['rise'], { rise: layer.rise, radius: form.section.radius }, [
        {
          id: 'flute-wider',
          figures: { radius: layer.rise },
          edits: [{ set: inSetup(at, ...own, 'source', 'form', 'section', 'radius'), to: layer.rise }],
        },
      ]),
    );
  return out;
}

/** What turned forms have wrong: a board that lies flat, a turn on the sheet, a depth that reaches the axis, flutes deeper than their own radius. */
export const turnedForms = (job: Job): Found[] =>
  setupsOf(job).flatMap((at) =>
    at.setup.layers.flatMap((l, i) => (isOf(l, 'turned') ? ofLayer(at, l, [...setupPath(job, at), 'layers', i]) : [])),
  );
