import { layerAt } from '@/core/arrange/place';
import { applyEdits, inBoard } from '@/core/doc/edits';
import { zoomed } from '../board-view/camera';
import { onScreen } from '../board-view/layout';
import { kept } from '../board-view/section-line';
import type { Act } from '../controls/act';
import { notices } from '../controls/notices';
import { layerActs, wayBack } from './layer-acts';
import type { OpenScreen } from './use-screen';
import type { Room } from './view-bar';

/** How much closer a step from the menu leads. */
const CLOSER = 3;

/** What can be done at a place of the board view, pixels: with the layer that lies there, and with how the board is looked at. */
export function boardActs(screen: OpenScreen, room: Room, at: { x: number; y: number }): Act[] {
  const { job, setCamera, setLine, camera, layers, arranging } = screen;
  const { board } = job;
  const place = onScreen(room.layout).place(at.x, at.y);
  const through = { x0: 0, y0: place.y, x1: board.x, y1: place.y };
  const across = { x0: place.x, y0: 0, x1: place.x, y1: board.y };
  return [
    ...(arranging ? layerActs(screen, layers) : []),
    {
      name: 'Closer to this place',
      keys: '+',
      can: true,
      run: () => setCamera((was) => zoomed(room.looking, was, at, CLOSER)),
    },
    { name: 'The whole board', keys: '0', can: camera !== null, run: () => setCamera(() => null) },
    { name: 'Section along the board through here', keys: '', can: true, run: () => setLine(kept(board, through)) },
    { name: 'Section across the board through here', keys: '', can: true, run: () => setLine(kept(board, across)) },
  ];
}

/** Takes the layer at a place of the board view in hand, where layers are arranged and it is not among those that are. */
export function takeAt({ job, arranging, layers, editor }: OpenScreen, room: Room, at: { x: number; y: number }): void {
  if (!arranging) return;
  const { x, y } = onScreen(room.layout).place(at.x, at.y);
  const hit = layerAt(job.layers, x, y, job.board.drum ? job.board.y : 0);
  if (hit && !layers.includes(hit.id)) editor.select([hit.id]);
}

/** Takes the setup that is shown off its board, and says so with the way back. */
export function removeSetup({ job, change, editor, showSetup }: OpenScreen): void {
  const { board, setup } = job;
  const next = board.setups.find((s) => s.id !== setup.id);
  if (!next) return;
  change((j) => applyEdits(j.document, [{ remove: [...inBoard(j, 'setups'), { id: setup.id }] }]));
  const back = wayBack(editor);
  showSetup(next.id);
  notices.say(`Setup ${setup.name} removed`, () => {
    back();
    showSetup(setup.id);
  });
}
