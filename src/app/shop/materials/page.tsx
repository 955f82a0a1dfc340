import { MaterialsPlace } from '@/ui/places/materials';

export const metadata = { title: 'Materials · zealous grain' };

export default function Page() {
  return <MaterialsPlace />;
}
