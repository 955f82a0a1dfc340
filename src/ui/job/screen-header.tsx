'use client';
import { Redo2, Undo2 } from 'lucide-react';
import Link from 'next/link';
import { setupsOf } from '@/core/doc/job';
import { FLIP_WORDS } from '@/core/setup/frame';
import { UnitSwitch } from '../controls/unit';
import { KeysHelp } from '../palette/keys-help';
import { Palette } from '../palette/palette';
import { ThemeSwitch } from '../theme-switch';
import { HeaderFacts } from './header-facts';
import { JOB_KEYS, useJobCommands } from './job-commands';
import type { OpenScreen } from './use-screen';

/** Name and facts of the job, undo and redo, what can be found, and the keys. */
export function ScreenHeader({ screen }: { screen: OpenScreen }) {
  const { state, job, plan, fresh, facts } = screen;
  const commands = useJobCommands(screen);
  const steps = [
    { label: 'Undo', keys: 'Ctrl Z', can: state.canUndo, go: state.editor.undo, icon: <Undo2 size={16} /> },
    { label: 'Redo', keys: 'Ctrl Y', can: state.canRedo, go: state.editor.redo, icon: <Redo2 size={16} /> },
  ];
  return (
    <header className="isolate flex min-h-14 flex-wrap items-center gap-x-5 border-b border-base-300 bg-base-100 px-4 py-1 max-sm:px-2">
      <Link href="/" aria-label="zealous grain, the shop" className="slab text-xl whitespace-nowrap">
        <span className="max-sm:hidden">zealous </span>
        <span className="text-primary">grain</span>
      </Link>
      <h1 className="slab min-w-24 flex-1 truncate text-lg" title={job.name}>
        {job.name}
      </h1>
      <div className="max-w-full overflow-x-auto max-xl:order-last max-xl:w-full">
        <HeaderFacts job={job} plan={plan} fresh={fresh} facts={facts} hours={screen.hours} />
      </div>
      <div className="flex">
        {steps.map((s) => (
          <button
            key={s.label}
            type="button"
            className="btn btn-ghost btn-sm btn-square max-sm:hidden"
            aria-label={s.label}
            title={`${s.label} (${s.keys})`}
            disabled={!s.can}
            onClick={s.go}
          >
            {s.icon}
          </button>
        ))}
        <Palette commands={commands} />
        <KeysHelp help={JOB_KEYS} />
        <UnitSwitch />
        <ThemeSwitch />
      </div>
    </header>
  );
}

/** Which setup is shown, where a job has more than one. */
export function SetupSwitch({ screen }: { screen: OpenScreen }) {
  const { job, showSetup } = screen;
  const all = setupsOf(job.document);
  if (all.length < 2) return null;
  const boards = job.document.boards.length > 1;
  return (
    <fieldset className="join">
      <legend className="sr-only">Which setup is shown</legend>
      {all.map(({ board, setup }, i) => (
        <button
          key={setup.id}
          type="button"
          aria-pressed={setup.id === job.setup.id}
          title={
            setup.up === 'back'
              ? `the board lies on its face, turned over ${FLIP_WORDS[board.flip]}`
              : 'the board lies on its back'
          }
          className={`btn join-item btn-sm ${setup.id === job.setup.id ? 'btn-primary' : 'bg-base-100'}`}
          onClick={() => showSetup(setup.id)}
        >
          {i + 1} {boards ? `${board.name}, ` : ''}
          {setup.name}
        </button>
      ))}
    </fieldset>
  );
}
