import { useQuery } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { ask } from '@/contract/ask';
import { JOBS } from '@/contract/jobs';
import { SHOP_PLACES } from '../places/shop-places';
import type { Command } from './commands';

/** The ways to the shop's places and to its jobs. @returns commands without the way to the job of an id */
export function useShopCommands(): (but?: string) => Command[] {
  const router = useRouter();
  const jobs = useQuery({ queryKey: ['jobs'], queryFn: () => ask(JOBS.rack, {}), staleTime: 10_000 });
  return (but) => [
    ...[{ name: 'Rack of jobs', href: '/' }, ...SHOP_PLACES, { name: 'Guide', href: '/guide' }].map(
      ({ name, href }) => ({
        id: href,
        group: 'Shop',
        name,
        run: () => router.push(href),
      }),
    ),
    ...(jobs.data ?? [])
      .filter((j) => j.id !== but && j.unreadable === null)
      .map((j) => ({
        id: `job ${j.id}`,
        group: 'Job',
        name: j.order ? `${j.name}, ${j.order}` : j.name,
        run: () => router.push(`/jobs/${j.id}`),
      })),
  ];
}
