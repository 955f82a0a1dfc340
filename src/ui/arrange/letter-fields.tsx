'use client';
import { useState } from 'react';
import type { Words } from '@/core/doc/words';
import { Choice, Folded, LengthField, NumberField, Tick } from '../controls/fields';

/** Spaces between letters, kerning, width and lines of words. */
export function LetterFields({ words: w, put }: { words: Words; put(part: Partial<Words>): void }) {
  const [letter, setLetter] = useState(0);
  return (
    <Folded title="Letters and spaces">
      <LengthField
        label="Between all"
        value={w.spacing}
        min={-100}
        max={500}
        onChange={(spacing) => put({ spacing })}
      />
      <Choice
        label="Before letter"
        value={String(Math.min(letter, w.text.length - 1))}
        options={[...w.text].map(
          (c, i) => [String(i), `${i + 1}. ${c === '\n' ? 'new line' : c === ' ' ? 'space' : c}`] as const,
        )}
        onChange={(v) => setLetter(Number(v))}
      />
      <LengthField
        label="Shift by hand"
        value={w.nudges[String(letter)] ?? 0}
        min={-500}
        max={500}
        onChange={(v) => {
          const { [String(letter)]: _, ...rest } = w.nudges;
          put({ nudges: v === 0 ? rest : { ...rest, [String(letter)]: v } });
        }}
        note="this letter and those after it"
      />
      <Tick label="Kerning" value={w.kerning} onChange={(kerning) => put({ kerning })} />
      <NumberField
        label="Stretch"
        value={Math.round(w.stretch * 100)}
        min={20}
        max={500}
        suffix="%"
        onChange={(v) => put({ stretch: v / 100 })}
      />
      {w.text.includes('\n') && (
        <NumberField
          label="Line distance"
          value={w.lineGap}
          min={0.5}
          max={10}
          suffix="capitals"
          onChange={(lineGap) => put({ lineGap })}
        />
      )}
      <Choice
        label="Lines"
        value={w.align}
        options={[
          ['left', 'from the left'],
          ['middle', 'middle'],
          ['right', 'to the right'],
        ]}
        onChange={(align) => put({ align })}
      />
    </Folded>
  );
}
