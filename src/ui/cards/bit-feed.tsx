import { type Cutter, chipLoad } from '@/core/cutter/cutter';
import { feedDoubts } from '@/core/cutter/feed-doubt';
import { sayFeed, sayLength } from '@/core/units/say';
import { FeedField } from '../controls/fields';

/** A bit's feed with its chip load, and what was meant where that is out of all proportion. */
export function BitFeed({ cutter, onChange }: { cutter: Cutter; onChange(feed: number): void }) {
  const { feed, rpm, flutes } = cutter;
  const doubts = feedDoubts(cutter);
  const said = `${sayLength(chipLoad(feed, rpm, flutes), doubts.length > 0 ? 4 : 3)} a tooth at ${rpm} rpm`;
  return (
    <FeedField
      label="Feed"
      value={feed}
      onChange={onChange}
      note={
        doubts.length === 0 ? (
          said
        ) : (
          <>
            {said}: hardly any bit is run so. Was it meant in another unit?{' '}
            {doubts.map((d) => (
              <button key={d.meant} type="button" className="btn btn-xs mr-1" onClick={() => onChange(d.feed)}>
                {d.meant}: {sayFeed(d.feed)}
              </button>
            ))}
          </>
        )
      }
    />
  );
}
