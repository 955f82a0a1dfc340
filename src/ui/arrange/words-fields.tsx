'use client';
import { useQuery } from '@tanstack/react-query';
import { useId, useRef, useState } from 'react';
import type { Layer, WordsSource } from '@/core/doc/layer';
import type { Words } from '@/core/doc/words';
import { addBend } from '@/core/outline/curve-points';
import { FONTS } from '@/core/sources/fonts';
import { api } from '../api';
import { Choice, Field, LengthField, TextField, Tick } from '../controls/fields';
import { editLayers } from './actions';
import type { FieldsProps } from './file-fields';
import { LetterFields } from './letter-fields';
import { ReliefFields } from './relief-fields';
import { arranger } from './use-arrangement';
import { VeeButton } from './vee-button';

const LINES: [Words['line']['kind'], string][] = [
  ['straight', 'straight'],
  ['arc', 'an arc'],
  ['curve', 'a free curve'],
];

/** What words run along. */
function LineFields({
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
        label="Runs on"
        value={line.kind}
        options={LINES}
        onChange={(kind) =>
          put(
            kind === 'arc'
              ? { kind, radius: Number((Math.max(layer.size.x, board.x / 4) * 0.8).toFixed(1)), under: false }
              : kind === 'curve'
                ? { kind, d: `M 0 0 C ${layer.size.x * 0.33} -20 ${layer.size.x * 0.66} 20 ${layer.size.x} 0` }
                : { kind },
          )
        }
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
            One bend more
          </button>
        </>
      )}
    </>
  );
}

/** Words: text, font, height of a capital, the line that they run on, and what stands on them. */
export function WordsFields({ job, layer, change }: FieldsProps) {
  const s = layer.source as WordsSource;
  const w = s.words;
  const [error, setError] = useState<string | null>(null);
  const [missing, setMissing] = useState<string[]>([]);
  const id = useId();
  const patterns = useQuery({ queryKey: ['patterns'], queryFn: api.patterns });
  const own = (patterns.data ?? []).filter((p) => p.info.kind === 'font');
  /** The words as last asked for; the layer's own follow when they have been set. */
  const asked = useRef<Words | null>(null);
  /** The words are set first, so that their size is known when they change; what is asked for meanwhile is added to it. */
  const put = async (part: Partial<Words>) => {
    const next = { ...(asked.current ?? w), ...part };
    asked.current = next;
    try {
      const { size, missing: gone } = await arranger().measure(next);
      if (asked.current !== next) return;
      setError(null);
      setMissing(gone);
      change((j) =>
        editLayers(j, [layer.id], (l) => {
          const was = (l.source as WordsSource).words.text.split('\n')[0].trim();
          if (l.name === was) l.name = next.text.split('\n')[0].trim().slice(0, 80) || l.name;
          (l.source as WordsSource).words = next;
          l.size = { x: Number(size.x.toFixed(4)), y: Number(size.y.toFixed(4)) };
        }),
      );
    } catch (e) {
      if (asked.current === next) setError((e as Error).message);
    } finally {
      if (asked.current === next) asked.current = null;
    }
  };
  const fonts = [...FONTS.map((f) => [f.id, f.name] as const), ...own.map((p) => [p.hash, p.name] as const)];
  return (
    <>
      <Field label="Words" id={id} error={error}>
        <textarea
          id={id}
          className="textarea textarea-sm w-full bg-(--paper)"
          rows={Math.min(5, w.text.split('\n').length + 1)}
          maxLength={500}
          defaultValue={w.text}
          key={w.text}
          onBlur={(e) => e.target.value !== w.text && void put({ text: e.target.value, nudges: {} })}
          onKeyDown={(e) => {
            if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) e.currentTarget.blur();
          }}
        />
      </Field>
      {missing.length > 0 && (
        <p role="alert" className="text-[13px] text-accent">
          The font has no {missing.map((c) => `"${c}"`).join(', ')}.
        </p>
      )}
      <Choice
        label="Font"
        value={w.font}
        options={fonts.some(([f]) => f === w.font) ? fonts : [...fonts, [w.font, w.fontName] as const]}
        onChange={(font) => void put({ font, fontName: fonts.find(([f]) => f === font)?.[1] ?? w.fontName })}
      />
      <LengthField
        label="Capitals"
        value={w.height}
        min={0}
        open
        max={2000}
        onChange={(height) => void put({ height })}
        note="height of a capital"
      />
      <LineFields layer={layer} line={w.line} board={job.board} put={(line) => void put({ line })} />
      <VeeButton layer={layer} change={change} />
      <ReliefFields
        relief={s.relief}
        layer={layer}
        put={(r) => change((j) => editLayers(j, [layer.id], (l) => ((l.source as WordsSource).relief = r)))}
      />
      <LetterFields words={w} put={(part) => void put(part)} />
    </>
  );
}
