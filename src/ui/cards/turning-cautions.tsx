import type { SetupView } from '@/core/setup/view';
import { sayLength } from '@/core/units/say';

/** Which way a drum turns as its angle grows, seen along its axis from its right end, and where the bit and whoever stands at it are. */
function TurnDrawing({ letter }: { letter: string }) {
  return (
    <svg
      width="150"
      height="104"
      viewBox="0 0 150 104"
      role="img"
      aria-label={`Seen from its right end: the bit above, you in front, the wood under the bit goes towards you as ${letter} grows`}
      className="my-1 block"
    >
      <circle cx="75" cy="64" r="26" fill="var(--wood)" stroke="var(--wood-line)" />
      <path d="M69 6h12v20l-6 8-6-8z" fill="none" stroke="currentColor" strokeWidth="1.5" />
      <path d="M93 56a20 20 0 0 0-36 0" fill="none" stroke="var(--color-primary)" strokeWidth="2" />
      <path d="M53 50l4 7 7-4" fill="none" stroke="var(--color-primary)" strokeWidth="2" />
      <text x="4" y="68" fontSize="12" fill="currentColor">
        you
      </text>
      <text x="108" y="68" fontSize="12" fill="currentColor">
        {letter} +
      </text>
    </svg>
  );
}

/** What to see to before a drum turns. */
export function TurningCautions({ job }: { job: SetupView }) {
  const { drum } = job.board;
  const { rotary } = job.machine;
  if (!drum || !rotary) return null;
  return (
    <>
      <li>No loose sleeves, no gloves, hair tied up; the guard over the chuck, and its key out of it.</li>
      <li>
        The tail stock tight{drum.tailStock > 0 && `, over ${sayLength(drum.tailStock)}`}; the blank checked for cracks.
        A square one is turned round first, slowly, for it is out of balance.
      </li>
      {drum.collar && (
        <li>
          Touch off on the collar at x {sayLength(drum.collar.x)}, and scribe a line across it at {rotary.letter} 0
          before the first program: a run that has stopped is found again by it, in x and in angle.
        </li>
      )}
      <li>
        Each program begins and ends {sayLength(job.setup.heights.everything)} over the drum: jaws and tail stock stand
        lower than that, or the height over everything is raised.
      </li>
      <li>
        Turn it by hand all the way round, with the bit at its lowest place: nothing may touch. Then the first turns
        slowly.
      </li>
      <li>
        As {rotary.letter} grows the bit goes the way that y goes on the sheet: the wood under it comes{' '}
        {rotary.along === 'x' ? 'towards whoever stands in front' : 'over to the right, seen from the front'}. Try it
        with the bit high; where yours turns the other way, its direction is set at the controller.
        {rotary.along === 'x' && <TurnDrawing letter={rotary.letter} />}
      </li>
    </>
  );
}
