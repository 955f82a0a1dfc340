import { ASSETS, type AssetInfo } from '@/contract/assets';
import { addressOf } from '@/contract/endpoint';
import type { Pattern } from '@/contract/patterns';
import { trueSize } from '@/core/sources/true-size';
import { saySize } from '@/core/units/say';

/** What of a file is compared with another. */
interface Shown {
  title: string;
  file: string;
  hash: string;
  info: AssetInfo['info'];
  size: Pattern['size'];
  rise: Pattern['rise'];
}

/** A version of a pattern: its picture and what it measures. */
export function PatternVersion({ of }: { of: Shown }) {
  const size = trueSize(of.info, of);
  return (
    <figure className="min-w-0 flex-1">
      {/* biome-ignore lint/performance/noImgElement: a picture made by our own server, of any size */}
      <img
        src={addressOf(ASSETS.picture, { hash: of.hash })}
        alt={`${of.title}, seen from above`}
        className="h-40 w-full rounded border border-base-300 bg-(--paper) object-contain"
      />
      <figcaption className="mt-1 text-sm leading-tight">
        <b>{of.title}</b>
        <span className="soft block truncate">{of.file}</span>
        <span className="soft block">{size ? saySize([size.x, size.y, size.z]) : 'of any size, as it says none'}</span>
      </figcaption>
    </figure>
  );
}
