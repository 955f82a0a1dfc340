'use client';
import { useQuery } from '@tanstack/react-query';
import { useId, useRef, useState } from 'react';
import { ask } from '@/contract/ask';
import { PATTERNS } from '@/contract/patterns';
import { setWords } from '@/core/arrange/kinds/words/set';
import type { Words } from '@/core/doc/words';
import { FONTS } from '@/core/sources/fonts';
import { Choice, Field, LengthField } from '../../controls/fields';
import { useDraft } from '../../controls/typed';
import { saidBy } from '../../editor/ports';
import { editKind } from '../actions';
import { LetterFields } from '../letter-fields';
import { ReliefFields } from '../relief-fields';
import { arranged } from '../use-arrangement';
import { VeeButton } from '../vee-button';
import { CurveHandles } from './curve-handles';
import type { FieldsProps, KindFields } from './kind-fields';
import { LineFields } from './line-fields';
import { splitInto } from './split-into-lines';

/** Words: text, font, height of a capital, the line that they run on, and what stands on them. */
function WordsFields({ job, layer, change }: FieldsProps<'words'>) {
  const s = layer.source;
  const w = s.words;
  const [error, setError] = useState<string | null>(null);
  const [missing, setMissing] = useState<string[]>([]);
  const id = useId();
  const { draft, put: setDraft } = useDraft('Words', w.text);
  const patterns = useQuery({ queryKey: ['patterns'], queryFn: () => ask(PATTERNS.list, {}) });
  const own = (patterns.data ?? []).filter((p) => p.info.kind === 'font');
  /** The words as last asked for; the layer's own follow when they have been set. */
  const asked = useRef<Words | null>(null);
  /** The words are set first, so that their size is known when they change; what is asked for meanwhile is added to it. */
  const put = async (part: Partial<Words>) => {
    const next = { ...(asked.current ?? w), ...part };
    asked.current = next;
    try {
      const { size, missing: gone } = await arranged('quick', (a) => a.measure(next));
      if (asked.current !== next) return;
      setError(null);
      setMissing(gone);
      change((j) => editKind(j, layer.id, 'words', (l) => setWords(l, next, size)));
    } catch (e) {
      if (asked.current === next) setError(saidBy(e));
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
          value={draft?.text ?? w.text}
          data-shown={w.text}
          onChange={(e) => setDraft({ text: e.target.value, error: null })}
          onBlur={() => {
            if (draft && draft.text !== w.text) void put({ text: draft.text, nudges: {} });
          }}
          onKeyDown={(e) => {
            if (e.key === 'Enter' && (e.ctrlKey || e.metaKey)) e.currentTarget.blur();
            if (e.key === 'Escape') setDraft(null);
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
        put={(r) => change((j) => editKind(j, layer.id, 'words', (l) => (l.source.relief = r)))}
      />
      <LetterFields words={w} put={(part) => void put(part)} />
    </>
  );
}

/** Words of several lines, each as a layer of its own. */
function WordsMore({ layer, change, onSelect }: FieldsProps<'words'>) {
  if (!layer.source.words.text.includes('\n')) return null;
  return (
    <button type="button" className="btn btn-sm my-1 w-full" onClick={() => void splitInto(layer, change, onSelect)}>
      Split into lines
    </button>
  );
}

export const wordsFields: KindFields<'words'> = { Fields: WordsFields, More: WordsMore, Handles: CurveHandles };
