import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { AskError } from '@/contract/ask';
import { newShape } from '@/core/arrange/new-layer';
import { Editor, shownOf } from './editor';
import { FakeBrowser, FakeServer } from './editor-test-kit';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

let server: FakeServer;
let browser: FakeBrowser;
let editor: Editor;
let close: () => void;

/** Lets everything happen that is due within a while. */
const pass = (ms: number) => vi.advanceTimersByTimeAsync(ms);

/** A page of the job, loaded. */
async function open(on = server, of = browser): Promise<Editor> {
  editor = new Editor('j', on, of);
  close = editor.open();
  await pass(0);
  return editor;
}

beforeEach(async () => {
  server = new FakeServer();
  browser = new FakeBrowser();
  await open();
});
afterEach(() => close());

const shown = () => shownOf(editor.get());
const rename = (name: string) => editor.change((j) => void (j.name = name));

test('a change is shown at once, saved when it settles, and is one step back', async () => {
  rename('A');
  expect(shown()).toMatchObject({ document: { name: 'A' }, canUndo: true, canRedo: false });
  expect(editor.get()).toMatchObject({ saving: 'waiting', revision: null });
  expect(server.document.name).toBe('Board');
  await pass(500);
  expect(server.document.name).toBe('A');
  expect(editor.get()).toMatchObject({ saving: 'saved', revision: 'v1' });
  editor.undo();
  expect(shown()).toMatchObject({ document: { name: 'Board' }, canUndo: false, canRedo: true });
  await pass(500);
  // The version that undo goes back to comes into force again; none is made.
  expect(server.head).toBe('v0');
  editor.redo();
  await pass(500);
  expect(server.head).toBe('v1');
  expect(server.versions).toHaveLength(2);
});

test('changes in quick succession are each a step, and each is saved', async () => {
  for (const name of ['A', 'B', 'C']) rename(name);
  expect(server.asks.filter((a) => a === 'save')).toEqual([]);
  await pass(500);
  expect(server.versions.map((v) => v.document.name)).toEqual(['Board', 'A', 'B', 'C']);
  editor.undo();
  editor.undo();
  rename('D');
  await pass(500);
  expect(server.document.name).toBe('D');
  expect(shown().canRedo).toBe(false);
  expect(server.versions.at(-1)?.base).toBe('v1');
});

test('a change that changes nothing is no step and no save', async () => {
  rename('Board');
  await pass(500);
  expect(shown().canUndo).toBe(false);
  expect(server.asks).not.toContain('save');
});

test('what is tried out is shown, is no step, and is gone when it is let go', () => {
  editor.tryOut(editor.tried((j) => void (j.boards[0].x = 500)));
  expect(shown()).toMatchObject({ trying: true, canUndo: false });
  expect(shown().document?.boards[0].x).toBe(500);
  editor.tryOut(null);
  expect(shown().document?.boards[0].x).toBe(300);
});

test('a server that does not answer is asked again by itself, and nothing is lost', async () => {
  server.offline();
  rename('A');
  await pass(500);
  expect(editor.get().saving).toBe('offline');
  expect(editor.get().problem).toMatch('this change is kept here');
  const tries = () => server.asks.filter((a) => a === 'save').length;
  expect(tries()).toBe(1);
  await pass(800);
  expect(tries()).toBe(1);
  await pass(200);
  expect(tries()).toBe(2);
  rename('B');
  server.failing = null;
  await pass(500);
  expect(server.document.name).toBe('B');
  expect(editor.get()).toMatchObject({ saving: 'saved', problem: null });
});

test('the network that is back is used at once', async () => {
  server.offline();
  rename('A');
  await pass(10_000);
  server.failing = null;
  browser.online();
  await pass(0);
  expect(server.document.name).toBe('A');
});

test('a refusal is told in its words, and the next change is tried again', async () => {
  server.failing = new AskError('the disk is full', 507);
  rename('A');
  await pass(500);
  expect(editor.get()).toMatchObject({ saving: 'refused', problem: 'the disk is full' });
  await pass(60_000);
  expect(server.asks.filter((a) => a === 'save')).toHaveLength(1);
  server.failing = null;
  rename('B');
  await pass(500);
  expect(editor.get()).toMatchObject({ saving: 'saved', problem: null });
});

test('a version that cannot be saved is told with its field, and passed over once a later change has put it right', async () => {
  rename('x'.repeat(200));
  await pass(500);
  expect(editor.get().saving).toBe('refused');
  expect(editor.get().problem).toMatch(/name/);
  rename('Short');
  await pass(500);
  expect(editor.get()).toMatchObject({ saving: 'saved', problem: null });
  expect(server.versions.map((v) => v.document.name)).toEqual(['Board', 'Short']);
});

/** Another page saves this name on top of what is in force. */
const elsewhere = (name: string) => server.save(server.head, { ...server.document, name });

test('a server that answers again with a conflict is not said to be silent any more', async () => {
  server.offline();
  rename('Mine');
  await pass(500);
  expect(editor.get()).toMatchObject({ saving: 'offline', problem: expect.stringMatching(/does not answer/) });
  server.failing = null;
  await elsewhere('Theirs');
  await pass(20_000);
  expect(editor.get()).toMatchObject({ saving: 'refused', problem: null, conflict: { head: 'v1', kept: 'v2' } });
});

test('two saves on top of the same version: nothing goes on before a person has chosen, and mine goes on top', async () => {
  await elsewhere('Theirs');
  rename('Mine');
  await pass(500);
  expect(editor.get()).toMatchObject({ saving: 'refused', conflict: { head: 'v1', kept: 'v2' } });
  rename('Mine too');
  await pass(5000);
  expect(server.versions).toHaveLength(3);
  expect(editor.get().saving).toBe('refused');
  await editor.settle('mine');
  expect(server.document.name).toBe('Mine too');
  expect(server.versions.at(-1)?.base).toBe('v1');
  expect(server.kept).toBe(null);
  expect(editor.get()).toMatchObject({ conflict: null, saving: 'saved' });
  editor.undo();
  expect(shown().document?.name).toBe('Theirs');
});

test('an answer that a save here has overtaken takes nothing back, and stands in no conflict with it', async () => {
  const load = server.load.bind(server);
  let answer = () => {};
  server.load = async () => {
    const stored = await load();
    await new Promise<void>((go) => {
      answer = go;
    });
    return stored;
  };
  await elsewhere('Theirs');
  browser.elsewhere();
  await pass(0);
  answer();
  await pass(0);
  expect(shown().document?.name).toBe('Theirs');
  browser.elsewhere();
  await pass(0);
  rename('Mine');
  await pass(500);
  expect(editor.get().saving).toBe('saved');
  answer();
  await pass(0);
  expect(shown().document?.name).toBe('Mine');
  rename('Mine too');
  await pass(500);
  expect(editor.get()).toMatchObject({ conflict: null, saving: 'saved' });
  expect(server.document.name).toBe('Mine too');
});

test('the other version is taken when a person says so', async () => {
  await elsewhere('Theirs');
  rename('Mine');
  await pass(500);
  await editor.settle('other');
  expect(shown().document?.name).toBe('Theirs');
  expect(editor.get()).toMatchObject({ conflict: null, saving: 'saved', revision: 'v1' });
  expect(browser.kept.size).toBe(0);
});

test('a conflict that could not be settled stays, and so does the copy that was kept', async () => {
  await elsewhere('Theirs');
  rename('Mine');
  await pass(500);
  server.offline();
  await editor.settle('mine');
  expect(editor.get().conflict).not.toBe(null);
  server.failing = null;
  expect(server.kept).toBe('v2');
  expect(shown().document?.name).toBe('Mine');
});

test('what was not saved outlives a reload, and is saved then', async () => {
  server.offline();
  rename('A');
  await pass(500);
  close();
  server.failing = null;
  await open();
  expect(shown().document?.name).toBe('A');
  await pass(500);
  expect(server.document.name).toBe('A');
  expect(browser.kept.size).toBe(0);
});

test('a reload within the moment before a save loses nothing', async () => {
  rename('A');
  // A browser that goes away runs nothing more.
  server.offline();
  close();
  server.failing = null;
  await open();
  await pass(500);
  expect(server.document.name).toBe('A');
});

test('leaving the page right after a change saves it, and plans nothing behind its back', async () => {
  disc('one');
  close();
  await pass(0);
  expect(server.document.boards[0].setups[0].layers).toHaveLength(1);
  await pass(10_000);
  expect(plannings()).toBe(0);
  expect(server.followed).toBe(null);
});

test('a page that was left does not go on asking a server that is not there', async () => {
  rename('A');
  server.offline();
  close();
  await pass(100_000);
  expect(server.asks.filter((a) => a === 'save')).toHaveLength(1);
});

test('what was not saved before a reload is chosen about when another page has saved meanwhile', async () => {
  rename('Mine');
  server.offline();
  close();
  server.failing = null;
  await elsewhere('Theirs');
  await open();
  expect(editor.get()).toMatchObject({ conflict: { head: 'v1', kept: 'v2' }, saving: 'refused' });
  expect(shown().document?.name).toBe('Mine');
  await editor.settle('mine');
  expect(server.document.name).toBe('Mine');
});

test('a save whose answer was lost is not made twice', async () => {
  rename('A');
  await pass(500);
  browser.memory.put('unsaved j', JSON.stringify({ base: 'v0', document: server.document }));
  close();
  await open();
  await pass(500);
  expect(server.versions).toHaveLength(2);
  expect(editor.get().conflict).toBe(null);
});

/** Puts a disc on the board. */
const disc = (id: string) =>
  editor.change((j) => {
    const { layers } = j.boards[0].setups[0];
    layers.push(newShape({ id, name: id }, { kind: 'circle' }, { kind: 'flat' }, j.boards[0], { share: 0.5 }));
  });

const plannings = () => server.asks.filter((a) => a === 'plan').length;

test('a saved change is planned at once, an empty board is not', async () => {
  rename('A');
  await pass(500);
  expect(plannings()).toBe(0);
  disc('one');
  await pass(500);
  expect(plannings()).toBe(1);
  expect(editor.get().plan?.status).toBe('queued');
  expect(shown().fresh).toBe(true);
  rename('B');
  expect(shown().fresh).toBe(false);
});

test('while layers are arranged a plan waits, and is made when that is over', async () => {
  editor.go('Arrange');
  disc('one');
  await pass(3000);
  expect(plannings()).toBe(0);
  editor.go('Proof');
  await pass(0);
  expect(plannings()).toBe(1);
  editor.go('Arrange');
  disc('two');
  await pass(6000);
  expect(plannings()).toBe(2);
});

test('a plan is followed while it runs, and let go of when it ends; its news of another plan is nothing', async () => {
  disc('one');
  await pass(500);
  const id = editor.get().plan?.id;
  expect(server.followed).toBe(id);
  server.tell('running');
  expect(editor.get().plan?.status).toBe('running');
  server.tell('running', 'another');
  expect(editor.get().plan?.id).toBe(id);
  server.tell('done', id);
  expect(editor.get().plan?.status).toBe('done');
  expect(server.followed).toBe(null);
});

test('what was stopped by hand is not planned by itself after a reload; what was interrupted is', async () => {
  disc('one');
  await pass(500);
  editor.cancel();
  await pass(0);
  expect(editor.get().plan?.status).toBe('cancelled');
  close();
  const before = plannings();
  await open();
  await pass(1000);
  expect(plannings()).toBe(before);
  close();
  server.tell('interrupted');
  await open();
  await pass(1000);
  expect(plannings()).toBe(before + 1);
});

test('the address carries the station and what is selected; Back goes over stations and not over selections', async () => {
  editor.go('Arrange');
  editor.select(['a']);
  editor.select(['a', 'b']);
  expect(browser.search()).toBe('?station=arrange&layer=a&layer=b');
  editor.showFinding('gouge/s1/p1', 's1');
  expect(editor.get().place).toMatchObject({ station: 'Proof', finding: 'gouge/s1/p1', setup: 's1' });
  browser.back();
  expect(editor.get().place).toMatchObject({ station: 'Arrange', layers: ['a', 'b'], finding: null });
  browser.back();
  expect(editor.get().place.station).toBe('Board');
});

test('a reload or a link comes to the same place', async () => {
  editor.showFinding('gouge/s1/p1', 's1');
  const link = browser.search();
  close();
  await open(server, new FakeBrowser(link));
  expect(editor.get().place).toMatchObject({ station: 'Proof', finding: 'gouge/s1/p1', setup: 's1' });
});

test('the only layer of a board is taken in hand where it is arranged', () => {
  disc('one');
  editor.go('Arrange');
  expect(editor.get().place.layers).toEqual(['one']);
});

test('what arrives late is selected unless something else was meanwhile', () => {
  editor.selectLater()(['upload']);
  expect(editor.get().place.layers).toEqual(['upload']);
  const late = editor.selectLater();
  editor.select(['mine']);
  late(['upload']);
  expect(editor.get().place.layers).toEqual(['mine']);
  const later = editor.selectLater();
  editor.showSetup('s2');
  later(['upload']);
  expect(editor.get().place.layers).toEqual([]);
});

test('a plan that arrives leaves station and selection alone', async () => {
  disc('one');
  editor.go('Arrange');
  editor.select(['one']);
  const { place } = editor.get();
  await pass(6000);
  server.tell('done');
  expect(editor.get().place).toBe(place);
});

test('nobody is told after the page is closed', async () => {
  let told = 0;
  const stop = editor.subscribe(() => told++);
  rename('A');
  expect(told).toBeGreaterThan(0);
  stop();
  const before = told;
  rename('B');
  expect(told).toBe(before);
});

test('what another tab has saved is shown here while nothing is under way, and other tabs are told of what is saved here', async () => {
  await server.save('v0', { ...server.document, name: 'Elsewhere' });
  browser.elsewhere();
  await pass(0);
  expect(shown()).toMatchObject({ document: { name: 'Elsewhere' }, canUndo: true });
  expect(editor.get()).toMatchObject({ revision: 'v1', saving: 'saved', conflict: null });
  rename('Here');
  await pass(500);
  expect(browser.told).toEqual(['unsaved j']);
  expect(server.head).toBe('v2');
});

test('what is being changed or tried out here is not taken away by what was saved elsewhere: it is chosen about', async () => {
  await server.save('v0', { ...server.document, name: 'Elsewhere' });
  editor.tryOut(editor.tried((j) => void (j.name = 'Tried')));
  browser.elsewhere();
  await pass(0);
  expect(shown()).toMatchObject({ document: { name: 'Tried' } });
  rename('Mine');
  browser.elsewhere();
  await pass(500);
  expect(shown()).toMatchObject({ document: { name: 'Mine' } });
  expect(editor.get().conflict).toEqual({ head: 'v1', kept: 'v2' });
});

test('both versions can be kept: the other goes on, mine stays under a name, with what was changed since it was refused', async () => {
  await elsewhere('Theirs');
  rename('Mine');
  await pass(500);
  rename('Mine, later');
  await pass(500);
  await editor.settle('both', 'My board');
  expect(shown().document?.name).toBe('Theirs');
  expect(editor.get()).toMatchObject({ conflict: null, saving: 'saved', revision: 'v1' });
  const [[revision, name]] = server.named;
  expect(name).toBe('My board');
  expect(server.versions.find((v) => v.id === revision)?.document.name).toBe('Mine, later');
  expect(browser.kept.size).toBe(0);
});
