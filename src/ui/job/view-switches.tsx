import type { WaysOf } from '../board-view/use-ways';
import type { OpenScreen } from './use-screen';

const MODES = ['plan', 'turn', 'left over', 'web'] as const;

/** How the board is shown. */
export function Modes({ screen }: { screen: OpenScreen }) {
  const { mode, setMode, surface } = screen;
  return (
    <fieldset className="join">
      <legend className="sr-only">How the board is shown</legend>
      {MODES.filter((m) => m !== 'web' || surface?.web).map((m) => (
        <button
          key={m}
          type="button"
          aria-pressed={mode === m}
          disabled={m === 'left over' && !surface?.deviation}
          className={`btn join-item btn-sm ${mode === m ? 'btn-primary' : 'bg-base-100'}`}
          onClick={() => setMode(m)}
        >
          {m}
        </button>
      ))}
    </fieldset>
  );
}

/** Which way up a board is shown that lies upside down on the machine: as it lies there, or as its piece is seen. */
export function WayUp({ screen }: { screen: OpenScreen }) {
  const { upsideDown, seen, setSeen, mode } = screen;
  if (!upsideDown || mode === 'turn') return null;
  const ways = [
    [false, 'on the machine', 'as it lies on the machine, turned over about its length: what was far is near'],
    [true, 'as seen', 'as the piece is seen from behind, turned like a page: what is up on its face is up here too'],
  ] as const;
  return (
    <fieldset className="join">
      <legend className="sr-only">Which way up the board is shown</legend>
      {ways.map(([way, name, title]) => (
        <button
          key={name}
          type="button"
          title={title}
          aria-pressed={seen === way}
          className={`btn join-item btn-sm ${seen === way ? 'btn-primary' : 'bg-base-100'}`}
          onClick={() => setSeen(way)}
        >
          {name}
        </button>
      ))}
    </fieldset>
  );
}

/** The setup's bits as their programs lead them, over the board: of the pass that is shown, or of all. */
export function waysShown({ paths, mode, arranging, station, pass, fresh, plan, job }: OpenScreen): WaysOf | null {
  if (!paths || mode === 'turn' || arranging || !fresh || plan?.status !== 'done') return null;
  return { plan: plan.id, setup: job.setup.id, pass: station === 'Passes' ? (pass?.id ?? null) : null };
}

/** Shows the paths of the bits or not. */
export function PathsSwitch({ screen }: { screen: OpenScreen }) {
  const { paths, setPaths, mode, arranging, fresh, plan } = screen;
  if (arranging || mode === 'turn') return null;
  return (
    <button
      type="button"
      aria-pressed={paths}
      disabled={!fresh || plan?.status !== 'done'}
      title="where the bits run, as the written programs say: of the pass that is shown on Passes, elsewhere of all"
      className={`btn btn-sm ${paths ? 'btn-primary' : 'bg-base-100'}`}
      onClick={() => setPaths(!paths)}
    >
      paths
    </button>
  );
}

/** Turned about, the board is shown with its frame and waste, or the piece alone as it will look. */
export function AloneSwitch({ screen }: { screen: OpenScreen }) {
  const { alone, setAlone, mode, job } = screen;
  if (mode !== 'turn' || job.board.drum) return null;
  return (
    <button
      type="button"
      aria-pressed={alone}
      className={`btn btn-sm ${alone ? 'btn-primary' : 'bg-base-100'}`}
      onClick={() => setAlone(!alone)}
    >
      piece alone
    </button>
  );
}
