import { trimNumber } from '../../units/length';
import { sayFeed, sayLength } from '../../units/say';
import type { Figures } from '../finding';
import { len, num } from './text';

/** The face that a fix changes, where there are several. */
const onFace = (f: Figures) => (f.face ? `${f.face}: ` : '');

/** What a fix does, as its button says it. */
export const FIX_LABELS: Record<string, (f: Figures) => string> = {
  'use-value': (f) => `Set it to ${trimNumber(num(f, 'value'), 4)}`,
  'rename-id': (f) => `Call the second one ${f.to}`,
  'no-mask': () => 'Take the mask off',
  'leave-out': () => 'Leave the missing layer out',
  'remove-distance': () => 'Remove the distance',
  'file-each': () => 'Write a file for each bit',
  'use-bit': (f) => `Use ${f.bit}`,
  'in-order': () => 'Put the passes in order',
  'remove-pass': () => 'Remove the pass',
  'rotary-axis': () => 'It has a rotary axis',
  'sheet-round': (f) => `Let the sheet be ${len(f, 'round')} wide`,
  'longer-drum': (f) => `Take a blank of ${len(f, 'length')}`,
  'drum-face': () => 'Let it be the face',
  'plain-rows': () => 'Run in plain rows',
  'face-bare': () => 'The face is bare wood',
  'raise-travel': (f) => `Travel ${len(f, 'height')} over everything`,
  'lower-travel': (f) => `Travel ${len(f, 'height')} over everything`,
  'stick-out': (f) => `Let ${f.bit} stick out ${len(f, 'stickOut')}`,
  'place-tabs': () => 'Place the tabs anew',
  'set-tabs': (f) => `Set ${f.count} tabs`,
  'stronger-tabs': (f) => `Tabs of ${len(f, 'length')} x ${len(f, 'thickness')}`,
  'slope-tabs': () => 'Slope the tabs',
  'take-figures': () => "Take the shop's figures",
  'widen-trench': (f) => `Clear a trench of ${len(f, 'width')}`,
  'make-smaller': (f) => `Make it all smaller, ${trimNumber(num(f, 'share'), 1)} %`,
  centre: () => 'Centre it on the board',
  'less-rise': (f) => `${onFace(f)}Bring the layers down to ${len(f, 'depth')}`,
  'less-skin': (f) => `${onFace(f)}Skin of ${len(f, 'skin')}`,
  'sink-deeper': (f) => `Sink its base by ${len(f, 'drop')}`,
  'carve-less': (f) => `Carve ${f.layer} ${len(f, 'rise')} deep`,
  'keep-base': () => 'Keep all of the model',
  'keep-distances': () => 'Bring it to its distance',
  'take-measure': (f) => `Set its size to ${len(f, 'width')} x ${len(f, 'height')}`,
  'hide-layer': (f) => `Hide ${f.layer}`,
  'onto-board': (f) => `Bring ${f.layer} onto the board`,
  'let-dig': (f) => `Let it dig ${len(f, 'rise')}`,
  'smooth-steps': () => 'Smooth the steps',
  'carve-in': () => 'Carve it in',
  'add-letters': (f) => `Add a pass for letters with ${f.bit}`,
  'shape-for-bit': (f) => `Shape it for ${f.bit}`,
  'use-feeds': (f) => `Feed at ${sayFeed(num(f, 'feed'))}, plunge at ${sayFeed(num(f, 'plunge'))}`,
  'use-speed': (f) => `Turn at ${f.rpm} rpm`,
  'hold-by-tape': () => 'It is held by tape under all of it',
  'use-stepdown': (f) => `Take ${len(f, 'stepdown')} at once`,
  'add-finish': (f) => `Finish with ${f.bit} too`,
  'rough-first': (f) => `Rough first with ${f.bit}`,
  'add-dowels': (f) => `Drill for dowels in ${f.setup}`,
  'on-dowels': () => 'It lies on the dowels',
  'against-fence': () => 'It lies against a fence',
  'drill-through': () => 'Drill through the board',
  'place-dowels': () => 'Stand them where they belong',
  'thicker-board': (f) => `Take a board of ${len(f, 'thickness')}`,
  'open-on-purpose': () => 'It is to be open here',
  'thinner-board': (f) => `The board is ${len(f, 'thickness')} thick`,
  'lay-spoilboard': (f) => `Lay a spoilboard of ${len(f, 'thickness')}`,
  'pocket-corners': (f) => `Follow with ${f.bit} in its corners`,
  'outline-whole': () => 'Cut out the whole piece',
  'cut-deeper': (f) => `Cut ${len(f, 'into')} into the spoilboard`,
  'move-board': (f) => `Lay the board at ${f.axis} ${len(f, 'at')}`,
  'show-layers': () => 'Show the hidden layers',
  'cell-of-bits': () => 'Plan on the cell that the bits ask for',
  'finer-cell': (f) => `Plan on cells of ${sayLength(num(f, 'cell'), 3)}`,
};

/** What variants are called. */
export const VARIANT_LABELS: Record<string, string> = {
  'with-flats': 'with level fields cleared by the end mill',
  'without-flats': 'with level fields left to the ball',
};
