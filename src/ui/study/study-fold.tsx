'use client';
import { useEffect, useRef, useState } from 'react';
import type { Picture } from '@/core/arrange/picture';
import { registerError } from '@/core/passes/register-error';
import { besideInWords } from '@/core/proof/study';
import type { SetupView } from '@/core/setup/view';
import { viewOf } from '@/core/setup/view';
import { trimNumber } from '@/core/units/length';
import { sayLength } from '@/core/units/say';
import { Folded, LengthField, NumberField } from '../controls/fields';
import type { ShownCase } from './study.worker';
import { useStudy } from './use-study';

/** What is asked where nothing is known of how the board finds its place, mm and degrees. */
const USUAL = { shift: 0.3, turn: 0.2 };
const CASES = 9;

/** A picture as it was made, as wide as its place. */
function PictureOf({ picture, label }: { picture: Picture; label: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const { data, width, height } = picture;
    canvas.current?.getContext('2d')?.putImageData(new ImageData(data, width, height), 0, 0);
  }, [picture]);
  return (
    <canvas
      ref={canvas}
      role="img"
      aria-label={label}
      width={picture.width}
      height={picture.height}
      className="w-full rounded border border-base-300"
    />
  );
}

/** One place beside the board's own, with what becomes of it there. */
function Case({ c, web }: { c: ShownCase; web: number }) {
  const words = besideInWords(c.beside, (mm) => sayLength(mm, 3));
  const thin = c.web < web - 1e-6;
  return (
    <li className="text-[12.5px] leading-tight">
      <PictureOf picture={c.picture} label={`Web of the board ${words}`} />
      <p>{words}</p>
      <p className={thin ? 'text-accent' : 'soft'}>
        web {sayLength(c.web)}
        {c.open > 0 ? `, ${trimNumber(c.open, 1)} mm² open` : ''}
        {c.thin > 0 ? `, ${trimNumber(c.thin, 1)} mm² thin` : ''}
      </p>
      {c.corner > 0 && (
        <p className="soft">
          steps up to {sayLength(c.corner)}, {trimNumber(c.gone / 1000, 2)} cm³ too much taken
        </p>
      )}
    </li>
  );
}

/** The setup that turns a board over: what is known of how it finds its place is asked first. */
function errorOf(job: SetupView) {
  const turned = job.board.setups.find((s) => s.up !== job.board.setups[0].up);
  const error = turned ? registerError(viewOf(job.document, { board: job.board, setup: turned })) : null;
  const round = (v: number) => Math.max(0.01, Number(v.toFixed(2)));
  return error ? { shift: round(error.shift), turn: round(error.turn) } : USUAL;
}

/** What becomes of a board that comes to lie beside its place when it is turned over: its programs cut it in nine places. */
export function StudyFold({ job, plan }: { job: SetupView; plan: string }) {
  const { board } = job;
  const [far, setFar] = useState(() => errorOf(job));
  const { study, start, stop } = useStudy(plan, job.document, board.id);
  const { done, cases, problem } = study;
  if (new Set(board.setups.map((s) => s.up)).size < 2) return null;
  return (
    <Folded title="Beside its place">
      <p className="soft py-1 text-[13px] leading-snug">
        The written programs cut the board once more, on a coarse grid: in its place, and in eight places beside it
        after it is turned over. Tabs count as web here.
      </p>
      <LengthField
        label="Moved by"
        value={far.shift}
        min={0}
        max={5}
        onChange={(shift) => setFar((f) => ({ ...f, shift }))}
      />
      <NumberField
        label="Turned by"
        value={far.turn}
        min={0}
        max={5}
        suffix="°"
        onChange={(turn) => setFar((f) => ({ ...f, turn }))}
      />
      {done === null ? (
        <button type="button" className="btn btn-sm my-1 w-full" onClick={() => void start(far.shift, far.turn)}>
          Cut it beside its place
        </button>
      ) : (
        <div className="my-1 flex items-center gap-2 text-sm" role="status">
          <progress className="progress flex-1" value={done} max={CASES} aria-label="Places that are cut" />
          {done} of {CASES}
          <button type="button" className="btn btn-xs" onClick={stop}>
            Cancel
          </button>
        </div>
      )}
      {problem && (
        <p role="alert" className="text-sm text-accent">
          {problem}
        </p>
      )}
      {cases.length > 0 && (
        <ul className="mt-1 grid grid-cols-2 gap-2" aria-label="The board beside its place">
          {cases.map((c) => (
            <Case key={besideInWords(c.beside, String)} c={c} web={board.web} />
          ))}
        </ul>
      )}
    </Folded>
  );
}
