import { Download } from 'lucide-react';
import type { MouseEvent } from 'react';
import { addressOf } from '@/contract/endpoint';
import { PLANS } from '@/contract/plans';
import type { ProgramInfo } from '@/contract/wire';
import type { SetupView } from '@/core/setup/view';
import { formatDuration } from '@/core/units/length';

/** Where programs are fetched from. */
interface Fetched {
  job: SetupView;
  /** The plan's id. */
  plan: string;
  /** The programs of all setups, in their order. */
  files: string[];
  /** What an address has to say of an older proof, and the question before it is followed. */
  asked: { older?: 'yes' };
  ask(e: MouseEvent): void;
}

/** One program: its file, bit and time, and how to fetch it. */
function ProgramItem({ program: p, job, plan, files, asked, ask }: Fetched & { program: ProgramInfo }) {
  return (
    <li
      className={`rounded border bg-(--paper) px-3 py-2 text-sm ${p.reserve ? 'border-(--wood-line) border-dashed' : 'border-base-300'}`}
    >
      <span className="block font-semibold break-all">{p.file}</span>
      <span className="soft block">
        {job.setup.up === 'back' && <b className="text-accent">board on its face · </b>}
        bit {p.cutter}, {job.cutters.find((c) => c.number === p.cutter)?.name} · {formatDuration(p.seconds)} ·{' '}
        {Math.ceil(p.bytes / 1000)} kB
      </span>
      <a
        className="btn btn-sm mt-1 w-full"
        href={addressOf(PLANS.program, { id: plan, index: String(files.indexOf(p.file)), ...asked })}
        download={p.file}
        onClick={ask}
      >
        <Download size={14} aria-hidden /> Download
      </a>
    </li>
  );
}

/** The programs of a setup in the order in which they are cut, and apart from them those that are kept in reserve. */
export function ProgramList({ programs, ...fetched }: Fetched & { programs: ProgramInfo[] }) {
  const item = (p: ProgramInfo) => <ProgramItem key={p.file} program={p} {...fetched} />;
  const reserve = programs.filter((p) => p.reserve);
  return (
    <>
      <ol className="space-y-2" aria-label="Programs in the order in which they are cut">
        {programs.filter((p) => !p.reserve).map(item)}
      </ol>
      {reserve.length > 0 && (
        <>
          <h3 className="mt-3 font-semibold">In reserve</h3>
          <p className="mb-2 text-sm leading-snug">
            Only if the bit after it labours: stop it, change the bit, find Z again, run this one, then begin the
            stopped program anew. It can be fetched before that program or halfway through it, for what has been cut
            meanwhile only leaves it less to do. Its time is not counted.
          </p>
          <ol className="space-y-2" aria-label="Programs in reserve">
            {reserve.map(item)}
          </ol>
        </>
      )}
    </>
  );
}
