import { inSetup } from '../../doc/edits';
import { clean } from '../../units/round';
import { aboutRun, type Rule } from './rule';
import { spanOf } from './run-places';

/** Places that the machine does not reach. */
export const outsideMachine: Rule = {
  id: 'outside-machine',
  run(at) {
    const { run, view } = at;
    const { setup, machine } = view;
    const { low, high } = spanOf(run);
    // A drum turns on its rotary axis instead of going along the other one.
    const axes = view.board.drum ? (['x'] as const) : (['x', 'y'] as const);
    return axes.flatMap((axis) => {
      const from = setup.place[axis] + low[axis];
      const to = setup.place[axis] + high[axis];
      const room = machine[axis];
      if (from >= -1e-6 && to <= room + 1e-6) return [];
      const middle = { x: (low.x + high.x) / 2, y: (low.y + high.y) / 2 };
      const place = { ...middle, [axis]: from < 0 ? low[axis] : high[axis] };
      // As far from both ends of the table as the span leaves room, so that other runs have some too.
      const moved = clean((room - (high[axis] - low[axis])) / 2 - low[axis]);
      return [
        {
          rule: 'outside-machine',
          severity: 'error' as const,
          subject: aboutRun(at, 0),
          place,
          figures: { axis, from, to, room, machine: machine.name },
          fixes:
            high[axis] - low[axis] <= room
              ? [
                  {
                    id: 'move-board',
                    figures: { axis, at: moved },
                    edits: [{ set: inSetup(view, 'place', axis), to: moved }],
                  },
                ]
              : [],
        },
      ];
    });
  },
};
