'use client';
import { freshLine } from '@/core/arrange/fresh';
import type { Layer } from '@/core/doc/layer';
import type { Words } from '@/core/doc/words';
import { addBend } from '@/core/outline/curve-points';
import { Choice, LengthField, TextField, Tick } from '../../controls/fields';

const LINES: [Words['line']['kind'], string][] = [
  ['straight', 'straight'],
  ['arc', 'an arc'],
  ['curve', 'a free curve'],
];

/** What words run along. */
export function LineFields({
  layer,
  line,
  board,
  put,
}: {
  layer: Layer;
  line: Words['line'];
  board: { x: number };
  put(line: Words['line']): void;
}) {
  return (
    <>
      <Choice
        label="Baseline"
        value={line.kind}
        options={LINES}
        onChange={(kind) => put(freshLine(kind, layer, board))}
      />
      {line.kind === 'arc' && (
        <>
          <LengthField
            label="Arc's radius"
            value={line.radius}
            min={1}
            max={10000}
            onChange={(radius) => put({ ...line, radius })}
          />
          <Tick label="Under the circle" value={line.under} onChange={(under) => put({ ...line, under })} />
        </>
      )}
      {line.kind === 'curve' && (
        <>
          <TextField label="Curve" value={line.d} max={20000} required onChange={(d) => put({ kind: 'curve', d })} />
          <p className="soft text-[13px]">its points can be dragged on the board; an SVG path in mm, y down</p>
          <button
            type="button"
            className="btn btn-sm my-1 w-full"
            onClick={() => put({ kind: 'curve', d: addBend(line.d) })}
          >
            Add a bend
          </button>
        </>
      )}
    </>
  );
}
