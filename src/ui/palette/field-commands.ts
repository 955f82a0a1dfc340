import type { Command } from './commands';

/** Goes to a field: what it is folded in opens, and it has the keys. */
function reach(field: HTMLElement): void {
  for (let at = field.closest('details'); at; at = at.parentElement?.closest('details') ?? null) at.open = true;
  field.scrollIntoView({ block: 'center' });
  field.focus();
}

/** The settings of the card that is shown, by their labels; a label that several have counts once for each. */
export function fieldCommands(card: ParentNode | null): Command[] {
  const fields = card?.querySelectorAll<HTMLInputElement | HTMLSelectElement>('input:not([type="file"]), select') ?? [];
  return [...fields].flatMap((field, i) => {
    const label = field.getAttribute('aria-label') ?? field.labels?.[0]?.textContent ?? '';
    const name = label.trim();
    if (name === '') return [];
    return [
      {
        id: `setting ${i} ${name}`,
        group: 'Setting',
        name,
        // After the list has closed and given the keys back to where they were.
        run: () => setTimeout(() => reach(field)),
      },
    ];
  });
}
