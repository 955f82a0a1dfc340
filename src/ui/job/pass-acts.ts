import type { Pass } from '@/core/doc/pass';
import { orderProblem } from '@/core/passes/order';
import type { SetupView } from '@/core/setup/view';
import { cardOf } from '../cards/kind-registry';
import { removePass } from '../cards/pass-edit';
import type { Act } from '../controls/act';
import { notices } from '../controls/notices';
import { copyOfPass, keepCopied, putIn } from './copied';
import { type Doing, pasteCopied, wayBack } from './layer-acts';

/** Takes a pass away, shows the one beside it, and says so with the way back. */
export function removePassSaid({ job, change, editor }: Doing, pass: Pass): void {
  const at = job.passes.findIndex((p) => p.id === pass.id);
  const next = job.passes[at === 0 ? 1 : at - 1];
  if (next) editor.showPass(next.id);
  change((j) => removePass(j, pass.id));
  notices.say(`${cardOf(pass).label} removed`, wayBack(editor));
}

/** The passes in an order in which one has gone a place on; null where it cannot go there. */
function shifted(job: SetupView, pass: Pass, by: number): Pass[] | null {
  const at = job.passes.findIndex((p) => p.id === pass.id);
  const to = at + by;
  if (at < 0 || to < 0 || to >= job.passes.length) return null;
  const order = job.passes.slice();
  order.splice(to, 0, ...order.splice(at, 1));
  return orderProblem(order) ? null : order;
}

/** What can be done with a pass. */
export function passActs(doing: Doing, pass: Pass): Act[] {
  const { job, change, editor } = doing;
  const keep = () => keepCopied(copyOfPass(job, pass));
  const move = (by: number) => {
    const order = shifted(job, pass, by);
    if (order) change((j) => (j.passes = order.map((p) => j.passes.find((o) => o.id === p.id)!)));
  };
  const { label } = cardOf(pass);
  return [
    {
      name: 'Copy',
      keys: 'Ctrl C',
      can: true,
      run: () => {
        keep();
        notices.say(`${label} copied with its bit: Ctrl V puts it into any job`);
      },
    },
    {
      name: 'Cut',
      keys: 'Ctrl X',
      can: true,
      run: () => {
        keep();
        removePassSaid(doing, pass);
      },
    },
    { name: 'Paste', keys: 'Ctrl V', can: true, run: () => pasteCopied(doing) },
    {
      name: 'Duplicate',
      keys: 'Ctrl D',
      can: true,
      run: () => {
        let made: ReturnType<typeof putIn> | null = null;
        change((j) => {
          made = putIn(j, copyOfPass(j, pass));
        });
        const put = made as ReturnType<typeof putIn> | null;
        if (put && 'pass' in put) editor.showPass(put.pass);
      },
    },
    { name: 'Earlier', keys: 'Alt Left', can: shifted(job, pass, -1) !== null, run: () => move(-1) },
    { name: 'Later', keys: 'Alt Right', can: shifted(job, pass, 1) !== null, run: () => move(1) },
    { name: 'Remove', keys: 'Delete', can: true, run: () => removePassSaid(doing, pass) },
  ];
}
