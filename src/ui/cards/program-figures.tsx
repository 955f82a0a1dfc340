import type { ProgramInfo } from '@/contract/wire';
import type { Cutter } from '@/core/cutter/cutter';
import type { Holding } from '@/core/doc/setup';
import { heldUnder } from '@/core/setup/holding';
import { trimNumber } from '@/core/units/length';
import { saidUnit, sayNumber } from '@/core/units/say';

/** What holds when a program has ended, in a few words. */
function holdsWords({ held }: ProgramInfo, holding: Holding[]): string {
  const { loose, weak } = held;
  if (heldUnder(holding)) return 'all held from below';
  const pieces = (n: number) => (n === 1 ? 'a piece' : `${n} pieces`);
  const parts = [
    loose.length > 0 ? `${pieces(loose.length)} loose` : '',
    weak.length > 0 ? `${pieces(weak.length)} on frail wood` : '',
  ].filter(Boolean);
  return parts.join(', ') || 'all of it holds';
}

/** Whether a bite is deeper than its bit's limit, as the proof judges it. */
export const isOver = ({ deep, most }: { deep: number; most: number }) => deep > most * 1.02 + 0.02;

/** Of every program the deepest bite against its limit, how much of its way is in air, and what holds when it has ended. */
export function ProgramFigures({
  programs,
  holding,
  bits,
}: {
  programs: ProgramInfo[];
  holding: Holding[];
  /** Of the job. */
  bits: Cutter[];
}) {
  return (
    <table aria-label="Programs as proven" className="mt-4 w-full text-left text-[13px] leading-snug">
      <thead className="soft">
        <tr>
          <th className="pr-2 pb-1 font-normal">Bit</th>
          <th className="pr-2 pb-1 font-normal">Deepest bite, {saidUnit()}</th>
          <th className="pr-2 pb-1 font-normal whitespace-nowrap">In air</th>
          <th className="pb-1 font-normal">Then</th>
        </tr>
      </thead>
      <tbody>
        {programs.map((p) => (
          <tr key={p.file} title={p.bite ? `${p.file}, line ${p.bite.line}` : p.file} className="align-top">
            <td className="pr-2 pb-1">
              {p.bite?.bit ?? bits.find((b) => b.number === p.cutter)?.name ?? `bit ${p.cutter}`}
              {p.reserve && <span className="soft block">in reserve</span>}
            </td>
            <td className="pr-2 pb-1 whitespace-nowrap">
              {p.bite ? (
                <span className={isOver(p.bite) ? 'text-accent' : ''}>
                  <b>{sayNumber(p.bite.deep, 1)}</b> of {sayNumber(p.bite.most, 1)}
                </span>
              ) : (
                'straight down only'
              )}
            </td>
            <td className="pr-2 pb-1 whitespace-nowrap">{trimNumber(p.air * 100, 0)} %</td>
            <td className="pb-1">{holdsWords(p, holding)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
