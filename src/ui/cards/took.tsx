import { formatDuration } from '@/core/units/length';

/** How long a pass takes, where it is planned, as the end of a sentence. */
export function Took({ done }: { done: { seconds: number } | undefined }) {
  return done ? (
    <>
      , in <b>{formatDuration(done.seconds)}</b>
    </>
  ) : null;
}
