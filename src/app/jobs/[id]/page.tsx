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
  const first = await firstLook(await shop(), id, { setup, layers: station === 'Arrange' });
  return <JobScreen key={id} id={id} first={first} />;
}
