import { expect, test } from 'vitest';
import { newShape } from '@/core/arrange/new-layer';
import { emptyBoard } from '../editor/editor-test-kit';
import { changed } from '../editor/line';
import { differences } from './differences';

const board = { x: 300, y: 200 };
const shape = (id: string) => newShape({ id, name: id }, { kind: 'rectangle' }, { kind: 'flat' }, board);
const base = changed(emptyBoard(), (j) => {
  j.boards[0].setups[0].layers = [shape('Panel'), shape('Ribbon')];
});

test('two versions of a job are told apart by what each of them has, and what both have otherwise', () => {
  expect(differences(base, base)).toEqual([]);
  const mine = changed(base, (j) => {
    j.name = 'Plaque';
    j.boards[0].thickness = 25;
    j.boards[0].setups[0].layers[1].rise = 9;
    j.boards[0].setups[0].layers.push(shape('Ear'));
  });
  const theirs = changed(base, (j) => {
    Object.assign(j.boards[0].setups[0].passes[0], { stockToLeave: 3 });
    j.boards[0].setups[0].layers.reverse();
    j.cutters[0].feed = 900;
  });
  expect(differences(mine, theirs)).toEqual([
    'job: name',
    `board ${base.boards[0].name}: thickness`,
    'layer Ribbon: rise',
    'layer Ear: only in mine',
    'layers: their order',
    'pass Roughing: stock to leave',
    `bit ${base.cutters[0].name}: feed`,
  ]);
  expect(differences(theirs, mine)).toContain('layer Ear: only in the other');
});
