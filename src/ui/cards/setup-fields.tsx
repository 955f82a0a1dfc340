'use client';
import { X } from 'lucide-react';
import { applyEdits, inBoard } from '@/core/doc/edits';
import { type Heights, HOLDINGS, type Holding, type Origin, type Setup, type Side } from '@/core/doc/setup';
import { SPOILBOARD } from '@/core/passes/bed';
import { addSetup } from '@/core/plan/setups';
import type { SetupView } from '@/core/setup/view';
import type { CardProps } from '@/ui/cards/card-props';
import { Choice, Folded, LengthField, TextField, Tick } from '../controls/fields';
import { PlaceList } from './place-list';

const ORIGIN_NAMES: [Origin, string][] = [
  ['lower-left', 'near left corner'],
  ['lower-right', 'near right corner'],
  ['upper-left', 'far left corner'],
  ['upper-right', 'far right corner'],
  ['centre', 'a cross in the centre'],
];

const HOLDING_NAMES: Record<(typeof HOLDINGS)[number], string> = {
  clamp: 'clamp',
  screw: 'screw',
  tape: 'double-sided tape',
  film: 'film',
  vacuum: 'vacuum zone',
};
/** What a newly entered clamp is like, mm: wide, tall over the board, and kept free around it. */
const NEW_CLAMP = { width: 30, height: 15, keptFree: 5 };

type Props = Pick<CardProps, 'job' | 'change'>;
const setterOf = (change: CardProps['change']) => (edit: (s: Setup) => void) => change((j) => edit(j.setup));

/** Where zero is, and what lies under the board. */
export function ZeroFields({ job, change }: Props) {
  const { zero, spoilboard } = job.setup;
  const set = setterOf(change);
  return (
    <>
      <Choice
        label="Origin"
        value={zero.origin}
        options={ORIGIN_NAMES}
        onChange={(v) => set((s) => (s.zero.origin = v))}
      />
      <Choice
        label="Z zero"
        value={zero.z}
        options={[
          ['top', 'top of the board'],
          ['bed', 'machine bed'],
        ]}
        onChange={(v) => set((s) => (s.zero.z = v))}
      />
      <Tick
        label="A spoilboard lies under it"
        value={spoilboard !== null}
        onChange={(v) => set((s) => (s.spoilboard = v ? SPOILBOARD : null))}
      />
      {spoilboard !== null && (
        <LengthField
          label="Spoilboard"
          value={spoilboard}
          min={0}
          open
          max={200}
          onChange={(v) => set((s) => (s.spoilboard = v))}
          note="its thickness"
        />
      )}
    </>
  );
}

const HEIGHTS: [keyof Heights, string, string][] = [
  ['approach', 'Approach', 'over the wood, where a rapid turns into a feed'],
  ['between', 'Between areas', 'over what stands on the way'],
  ['everything', 'Over everything', 'over the board, above all that holds it'],
];

function HeightFields({ job, change }: Props) {
  const set = setterOf(change);
  return HEIGHTS.map(([key, label, note]) => (
    <LengthField
      key={key}
      label={label}
      value={job.setup.heights[key]}
      min={0}
      open
      max={500}
      onChange={(v) => set((s) => (s.heights[key] = v))}
      note={note}
    />
  ));
}

/** A holding as the box around it. */
function boxOf(h: Holding) {
  const xs = h.outline.map((p) => p.x);
  const ys = h.outline.map((p) => p.y);
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  return { x, y, width: Math.max(...xs) - x, depth: Math.max(...ys) - y };
}
const outlineOf = ({ x, y, width, depth }: ReturnType<typeof boxOf>) => [
  { x, y },
  { x: x + width, y },
  { x: x + width, y: y + depth },
  { x, y: y + depth },
];

function OneHolding({
  holding: h,
  index,
  onChange,
  onRemove,
}: {
  holding: Holding;
  index: number;
  onChange(edit: (h: Holding) => void): void;
  onRemove(): void;
}) {
  const box = boxOf(h);
  const name = `${HOLDING_NAMES[h.kind].replace(/^./, (c) => c.toUpperCase())} ${index + 1}`;
  const put = (key: keyof typeof box) => (v: number) => onChange((e) => (e.outline = outlineOf({ ...box, [key]: v })));
  return (
    <li className="border-b border-base-300 py-1">
      <div className="flex items-center justify-between text-sm">
        <span className="soft">{name}</span>
        <button
          type="button"
          className="btn btn-ghost btn-xs btn-square"
          aria-label={`Remove ${name}`}
          onClick={onRemove}
        >
          <X size={14} />
        </button>
      </div>
      <Choice
        label="Held by"
        value={h.kind}
        options={HOLDINGS.map((k) => [k, HOLDING_NAMES[k]] as const)}
        onChange={(v) => onChange((e) => (e.kind = v))}
      />
      <LengthField label={`${name}, x`} value={box.x} onChange={put('x')} />
      <LengthField label={`${name}, y`} value={box.y} onChange={put('y')} />
      <LengthField label={`${name}, along x`} value={box.width} min={0} open onChange={put('width')} />
      <LengthField label={`${name}, along y`} value={box.depth} min={0} open onChange={put('depth')} />
      <LengthField
        label={`${name}, height`}
        value={h.height}
        min={0}
        onChange={(v) => onChange((e) => (e.height = v))}
        note="over the board's top"
      />
      <LengthField
        label={`${name}, kept free`}
        value={h.keptFree}
        min={0}
        onChange={(v) => onChange((e) => (e.keptFree = v))}
        note="around it"
      />
    </li>
  );
}

/** Clamps, screws, tape, film and vacuum. */
function HoldingFields({ job, change }: Props) {
  const set = setterOf(change);
  const { holding } = job.setup;
  const add = () =>
    set((s) =>
      s.holding.push({
        id: `holding-${crypto.randomUUID().slice(0, 8)}`,
        kind: 'clamp',
        outline: outlineOf({ x: 0, y: 0, width: NEW_CLAMP.width, depth: NEW_CLAMP.width }),
        height: NEW_CLAMP.height,
        keptFree: NEW_CLAMP.keptFree,
      }),
    );
  return (
    <>
      <ul>
        {holding.map((h, i) => (
          <OneHolding
            key={h.id}
            holding={h}
            index={i}
            onChange={(edit) => set((s) => edit(s.holding.find((e) => e.id === h.id)!))}
            onRemove={() => set((s) => (s.holding = s.holding.filter((e) => e.id !== h.id)))}
          />
        ))}
      </ul>
      <button type="button" className="btn btn-sm mt-1.5 w-full" onClick={add}>
        Add what holds it
      </button>
    </>
  );
}

/** What zero is found by again. */
function ReferenceFields({ job, change }: Props) {
  const set = setterOf(change);
  const { references } = job.setup;
  const middle = { x: job.board.x / 2, y: job.board.y / 2 };
  const list = (key: 'ticks' | 'spots', name: string) => (
    <PlaceList
      name={name}
      least={0}
      places={references[key]}
      onChange={(f) => set((s) => f(s.references[key]))}
      onAdd={() => set((s) => s.references[key].push({ x: 0, y: 0 }))}
    />
  );
  return (
    <>
      <Tick
        label="A cross is marked on the board"
        value={references.cross !== null}
        onChange={(v) => set((s) => (s.references.cross = v ? middle : null))}
      />
      {references.cross &&
        (['x', 'y'] as const).map((a) => (
          <LengthField
            key={a}
            label={`Cross, ${a}`}
            value={references.cross?.[a] ?? 0}
            onChange={(v) => set((s) => s.references.cross && (s.references.cross[a] = v))}
          />
        ))}
      <p className="soft pt-1 text-[13px]">Witness ticks in board that stays</p>
      {list('ticks', 'Tick')}
      <p className="soft pt-1 text-[13px]">Uncut spots to touch Z off on</p>
      {list('spots', 'Spot')}
    </>
  );
}

/** The setups of this board: another one, or one less. */
function SetupList({ job, change, onSetup }: Props & { onSetup(id: string): void }) {
  const { board, setup } = job;
  const add = (up: Side) => {
    onSetup(addSetup(job, up).id);
    change((j: SetupView) => applyEdits(j.document, addSetup(j, up).edits));
  };
  return (
    <>
      <TextField
        label="Name"
        value={setup.name}
        max={80}
        required
        onChange={(v) => change((j) => (j.setup.name = v))}
      />
      <p className="soft py-1 text-[13px] leading-snug">
        {setup.up === 'face'
          ? 'The face is up in this setup.'
          : 'The back is up: the board lies on its face, turned over left to right.'}{' '}
        Setups are cut one after the other.
      </p>
      <div className="grid grid-cols-2 gap-1.5">
        <button type="button" className="btn btn-sm px-1" onClick={() => add('back')}>
          Add the back
        </button>
        <button type="button" className="btn btn-sm px-1" onClick={() => add('face')}>
          Add the face
        </button>
      </div>
      {board.setups.length > 1 && (
        <button
          type="button"
          className="btn btn-sm mt-1.5 w-full"
          onClick={() => {
            onSetup(board.setups.find((s) => s.id !== setup.id)!.id);
            change((j) => applyEdits(j.document, [{ remove: [...inBoard(j, 'setups'), { id: setup.id }] }]));
          }}
        >
          Remove this setup
        </button>
      )}
    </>
  );
}

/** All that is seldom changed of a clamping. */
export function SetupFolds(props: Props & { onSetup(id: string): void }) {
  const { setup, board } = props.job;
  return (
    <>
      <Folded title={`Setup: ${setup.name}${board.setups.length > 1 ? `, ${board.setups.length} in all` : ''}`}>
        <SetupList {...props} />
      </Folded>
      <Folded title="Heights over the board">
        <HeightFields {...props} />
      </Folded>
      <Folded title={`What holds it${setup.holding.length > 0 ? `: ${setup.holding.length}` : ''}`}>
        <HoldingFields {...props} />
      </Folded>
      <Folded title="What zero is found by">
        <ReferenceFields {...props} />
      </Folded>
    </>
  );
}
