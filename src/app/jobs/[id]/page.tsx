import { firstLook } from '@/server/first-look';
import { shop } from '@/server/shop';
import { placeOf } from '@/ui/editor/place';
import { JobScreen } from '@/ui/job/job-screen';

interface Asked {
  params: Promise<{ id: string }>;
  searchParams: Promise<Record<string, string | string[] | undefined>>;
}

export default async function Page({ params, searchParams }: Asked) {
  const { id } = await params;
  const fields = Object.entries(await searchParams).flatMap(([k, v]) => (typeof v === 'string' ? [[k, v]] : []));
  const { station, setup } = placeOf(new URLSearchParams(fields).toString());
  // A shop that cannot be opened is told by what the page asks for next, with the remedy.
  const first = await shop()
    .then((opened) => firstLook(opened, id, { setup, layers: station === 'Arrange' }))
    .catch(() => null);
  return <JobScreen key={id} id={id} first={first} />;
}
