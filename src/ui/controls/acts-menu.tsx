'use client';
import * as Menu from '@radix-ui/react-context-menu';
import type { ReactElement } from 'react';
import type { Act } from './act';

/** What it is opened on by the second button of the mouse, a long press, or the menu key: a menu of what can be done there. */
export function ActsMenu({
  label,
  acts,
  children,
  onOpen,
}: {
  label: string;
  /** Asked when it is opened. */
  acts(): Act[];
  /** One element, which takes the menu's own properties. */
  children: ReactElement;
  onOpen?(e: { clientX: number; clientY: number }): void;
}) {
  return (
    <Menu.Root modal={false}>
      <Menu.Trigger asChild onContextMenu={onOpen}>
        {children}
      </Menu.Trigger>
      <Menu.Portal>
        <Menu.Content
          aria-label={label}
          className="panel z-50 min-w-52 py-1 text-sm shadow-xl"
          // The focus goes back to where it was, unless what was done has led it elsewhere.
          onCloseAutoFocus={(e) => {
            if (document.activeElement && document.activeElement !== document.body) e.preventDefault();
          }}
        >
          <Acts acts={acts} />
        </Menu.Content>
      </Menu.Portal>
    </Menu.Root>
  );
}

function Acts({ acts }: { acts(): Act[] }) {
  return acts().map((a) => (
    <Menu.Item
      key={a.name}
      disabled={!a.can}
      onSelect={a.run}
      className="flex min-h-8 cursor-pointer items-center gap-6 px-3 outline-none data-disabled:cursor-default data-disabled:opacity-45 data-highlighted:bg-[color-mix(in_oklab,var(--color-primary)_16%,transparent)]"
    >
      <span className="flex-1">{a.name}</span>
      {a.keys && <kbd className="soft font-sans text-[12.5px]">{a.keys}</kbd>}
    </Menu.Item>
  ));
}
