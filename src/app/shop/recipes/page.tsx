import { RecipesPlace } from '@/ui/places/recipes';

export const metadata = { title: 'Recipes · zealous grain' };

export default function Page() {
  return <RecipesPlace />;
}
