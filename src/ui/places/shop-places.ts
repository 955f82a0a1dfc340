import type { Shelf } from '@/core/doc/library';

/** A page of the shop. */
export interface ShopPlace {
  shelf: Shelf;
  href: string;
  /** As a link beside the others, and by itself. */
  title: string;
  name: string;
}

/** The shop's pages besides the rack, in the order of their links. */
export const SHOP_PLACES: ShopPlace[] = [
  { shelf: 'cutters', href: '/shop/bits', title: 'Bits', name: 'Cutter drawer' },
  { shelf: 'machines', href: '/shop/machines', title: 'Machines', name: 'Machines' },
  { shelf: 'materials', href: '/shop/materials', title: 'Materials', name: 'Materials' },
  { shelf: 'recipes', href: '/shop/recipes', title: 'Recipes', name: 'Recipes' },
];
