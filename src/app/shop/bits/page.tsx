import { BitsPlace } from '@/ui/places/bits';

export const metadata = { title: 'Cutter drawer · zealous grain' };

export default function Page() {
  return <BitsPlace />;
}
