'use client';
import { Check, X } from 'lucide-react';
import { useEffect, useState } from 'react';

/** Where this browser notes that the first steps are not wanted any more. */
const LEFT = 'zg-first-steps';

/** The three steps of a first board, each ticked when it is done; they can be left, and then stay away. */
export function FirstSteps({
  arranged,
  proven,
  run,
  className,
}: {
  arranged: boolean;
  proven: boolean;
  run: boolean;
  className: string;
}) {
  const [shown, setShown] = useState(false);
  useEffect(() => setShown(localStorage.getItem(LEFT) === null), []);
  if (!shown) return null;
  const leave = () => {
    localStorage.setItem(LEFT, 'left');
    setShown(false);
  };
  const steps: [boolean, string][] = [
    [arranged, 'Put a relief, a shape or words on the board.'],
    [proven, 'Prove the cut.'],
    [run, 'Run the programs, one after the other.'],
  ];
  return (
    <section
      aria-label="First steps"
      className={`panel mx-1.5 mt-auto mb-2 px-2 py-1.5 text-[12.5px] leading-tight ${className}`}
    >
      <div className="flex items-center justify-between">
        <b>First steps</b>
        <button
          type="button"
          className="btn btn-ghost btn-square btn-xs"
          aria-label="Leave the first steps"
          onClick={leave}
        >
          <X size={12} aria-hidden />
        </button>
      </div>
      <ol className="mt-1 space-y-1">
        {steps.map(([done, text], i) => (
          <li key={text} className="flex gap-1">
            <span className="w-3 shrink-0">{done ? <Check size={12} aria-label="done" /> : i + 1}</span>
            <span className={done ? 'soft' : ''}>{text}</span>
          </li>
        ))}
      </ol>
    </section>
  );
}
