'use client';
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react';
import { CircleHelp } from 'lucide-react';
import { createContext, useContext } from 'react';
import { TermDrawing } from './term-drawing';
import type { TermFigures } from './term-figures';
import { MEANINGS, termOf } from './terms';

/** What terms are explained by below it; without it they are not. */
export const TermsOf = createContext<TermFigures | null>(null);

/** Where a label is a term of the trade: a mark that opens what it means here. */
export function TermMark({ label }: { label: string }) {
  const figures = useContext(TermsOf);
  const term = termOf(label);
  if (!figures || !term) return null;
  return (
    <Popover className="inline">
      <PopoverButton
        className="inline-flex cursor-pointer items-center align-text-bottom opacity-60 hover:opacity-100"
        aria-label={`What is meant by ${label.toLowerCase()}`}
      >
        <CircleHelp size={14} aria-hidden />
      </PopoverButton>
      <PopoverPanel
        anchor={{ to: 'left start', gap: 8 }}
        className="panel z-50 w-64 p-3 text-sm leading-snug shadow-xl"
      >
        <TermDrawing term={term} figures={figures} />
        {MEANINGS[term](figures)}
      </PopoverPanel>
    </Popover>
  );
}
