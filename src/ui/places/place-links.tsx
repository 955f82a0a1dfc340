import Link from 'next/link';
import type { Shelf } from '@/core/doc/library';
import { SHOP_PLACES } from './shop-places';

/** The way between the rack and the shop's places. */
export function PlaceLinks({ here }: { here: Shelf | 'guide' | null }) {
  return (
    <nav aria-label="Places of the shop" className="flex flex-wrap gap-1">
      <Link href="/" className="btn btn-ghost btn-sm" aria-current={here === null ? 'page' : undefined}>
        Rack
      </Link>
      {SHOP_PLACES.map(({ shelf, href, title }) => (
        <Link
          key={shelf}
          href={href}
          className={`btn btn-sm ${shelf === here ? 'btn-primary' : 'btn-ghost'}`}
          aria-current={shelf === here ? 'page' : undefined}
        >
          {title}
        </Link>
      ))}
      <Link
        href="/guide"
        className={`btn btn-sm ${here === 'guide' ? 'btn-primary' : 'btn-ghost'}`}
        aria-current={here === 'guide' ? 'page' : undefined}
      >
        Guide
      </Link>
    </nav>
  );
}
