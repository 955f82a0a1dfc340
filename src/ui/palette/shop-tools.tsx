'use client';
import { UnitSwitch } from '../controls/unit';
import { ThemeSwitch } from '../theme-switch';
import { KeysHelp } from './keys-help';
import { Palette } from './palette';
import { useShopCommands } from './shop-commands';

const KEYS: Parameters<typeof KeysHelp>[0]['help'] = [
  [
    'In the shop',
    [
      ['Ctrl K', 'find a job or a place by its name'],
      ['Ctrl Z', 'undo the last change of bits, machines or materials'],
      ['?', 'this list'],
    ],
  ],
];

/** What the shop's pages have at the top: finding, keys, light and dark. */
export function ShopTools() {
  const shop = useShopCommands();
  return (
    <div className="flex">
      <Palette commands={shop} />
      <KeysHelp help={KEYS} />
      <UnitSwitch />
      <ThemeSwitch />
    </div>
  );
}
