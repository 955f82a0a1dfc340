import { ShopPage } from '@/ui/shop/shop-page';

export default function Page() {
  return <ShopPage />;
}
