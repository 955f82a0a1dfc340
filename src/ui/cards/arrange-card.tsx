'use client';
import { useState } from 'react';
import type { Job } from '@/core/plan/job';
import { formatLength, MM_PER_INCH, trimNumber } from '@/core/units/length';
import { api } from '../api';
import { Choice, Folded, LengthField, NumberField, Tick } from '../controls/fields';
import type { CardProps } from './board-card';
import { Card, Sentence } from './card';

type Turns = Job['relief']['turns'];

/** The relief: its unit, way up, size and place. */
export function ArrangeCard({ job, change, lostPlan }: CardProps & { lostPlan: number }) {
  const { relief, board } = job;
  const [locked, setLocked] = useState(true);
  const [error, setError] = useState<string | null>(null);
  const aspect = relief.size.y / relief.size.x;

  /** Turns or mirrors; the size follows the new shape at the same scale, the base is proposed anew. */
  const orient = async (turns: Turns, mirror: boolean) => {
    try {
      const [was, now] = await Promise.all([
        api.orient(relief.hash, relief.turns, relief.mirror),
        api.orient(relief.hash, turns, mirror),
      ]);
      const k = relief.size.x / was.size.x;
      setError(null);
      change((j) => {
        j.relief.turns = turns;
        j.relief.mirror = mirror;
        j.relief.base = now.base;
        j.relief.size = { x: Number((now.size.x * k).toFixed(4)), y: Number((now.size.y * k).toFixed(4)) };
      });
    } catch (e) {
      setError((e as Error).message);
    }
  };
  const turn = (axis: 0 | 1 | 2) => {
    const t = relief.turns.slice() as Turns;
    t[axis] = (t[axis] + 1) % 4;
    void orient(t, relief.mirror);
  };
  const resize = (k: number) => ({
    x: Number((relief.size.x * k).toFixed(4)),
    y: Number((relief.size.y * k).toFixed(4)),
  });
  const margins = { x: (board.x - relief.size.x) / 2, y: (board.y - relief.size.y) / 2 };
  const centred = Math.abs(relief.centre.x - board.x / 2) < 0.005 && Math.abs(relief.centre.y - board.y / 2) < 0.005;
  return (
    <Card title="Relief" subtitle={relief.file}>
      <Sentence>
        <b>
          {trimNumber(relief.size.x, 1)} × {trimNumber(relief.size.y, 1)} mm
        </b>{' '}
        and <b>{formatLength(relief.rise)}</b> high
        {centred
          ? `, centred with ${formatLength(margins.x, 'mm', 1)} and ${formatLength(margins.y, 'mm', 1)} beside it`
          : ''}
        .
        {relief.base > 0.001 && (
          <>
            {' '}
            <span className="text-accent">
              {trimNumber(relief.base * 100, 1)} % of its thickness
              {lostPlan > 0.0005 ? ` and ${trimNumber(lostPlan * 100, 1)} % of its plan` : ''} lies below the base and
              is lost.
            </span>
          </>
        )}
      </Sentence>
      {relief.kind === 'mesh' && (
        <Choice
          label="File is in"
          value={relief.unit}
          options={[
            ['mm', 'millimetres'],
            ['in', 'inches'],
          ]}
          onChange={(unit) =>
            change((j) => {
              j.relief.unit = unit;
              j.relief.size = resize(unit === 'in' ? MM_PER_INCH : 1 / MM_PER_INCH);
            })
          }
          note="guessed from its size; the size below follows"
        />
      )}
      <LengthField
        label="Length, x"
        value={relief.size.x}
        min={0}
        open
        max={10000}
        onChange={(v) =>
          change(
            (j) => (j.relief.size = locked ? { x: v, y: Number((v * aspect).toFixed(4)) } : { ...j.relief.size, x: v }),
          )
        }
      />
      <LengthField
        label="Width, y"
        value={relief.size.y}
        min={0}
        open
        max={10000}
        onChange={(v) =>
          change(
            (j) => (j.relief.size = locked ? { x: Number((v / aspect).toFixed(4)), y: v } : { ...j.relief.size, y: v }),
          )
        }
      />
      <Tick label="Proportions locked" value={locked} onChange={setLocked} />
      <LengthField
        label="Rise"
        value={relief.rise}
        min={0}
        open
        max={500}
        onChange={(v) => change((j) => (j.relief.rise = v))}
        note="its own height, on its own"
      />
      <LengthField label="Centre, x" value={relief.centre.x} onChange={(v) => change((j) => (j.relief.centre.x = v))} />
      <LengthField label="Centre, y" value={relief.centre.y} onChange={(v) => change((j) => (j.relief.centre.y = v))} />
      <div className="flex gap-2 py-1">
        <button
          type="button"
          className="btn btn-sm flex-1"
          disabled={centred}
          onClick={() => change((j) => (j.relief.centre = { x: j.board.x / 2, y: j.board.y / 2 }))}
        >
          Centre on the board
        </button>
      </div>
      <Tick
        label="Carve it in: high places deepest"
        value={relief.invert}
        onChange={(v) => change((j) => (j.relief.invert = v))}
      />
      {relief.kind === 'mesh' && (
        <Folded title="Way up and base">
          <div className="grid grid-cols-2 gap-2 py-1">
            <button type="button" className="btn btn-sm" onClick={() => turn(0)}>
              Tip over (x)
            </button>
            <button type="button" className="btn btn-sm" onClick={() => turn(1)}>
              Roll over (y)
            </button>
            <button type="button" className="btn btn-sm" onClick={() => turn(2)}>
              Turn round (z)
            </button>
            <button
              type="button"
              className={`btn btn-sm ${relief.mirror ? 'btn-primary' : ''}`}
              aria-pressed={relief.mirror}
              onClick={() => void orient(relief.turns, !relief.mirror)}
            >
              Mirror
            </button>
          </div>
          {error && (
            <p role="alert" className="text-sm text-error">
              {error}
            </p>
          )}
          <NumberField
            label="Base plane"
            value={Number((relief.base * 100).toFixed(2))}
            min={0}
            max={99}
            suffix="% up"
            onChange={(v) => change((j) => (j.relief.base = v / 100))}
            note="what lies below it is lost"
          />
        </Folded>
      )}
    </Card>
  );
}
