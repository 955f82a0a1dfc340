import { MachinesPlace } from '@/ui/places/machines';

export const metadata = { title: 'Machines · zealous grain' };

export default function Page() {
  return <MachinesPlace />;
}
