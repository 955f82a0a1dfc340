'use client';
import { Moon, Sun } from 'lucide-react';
import { useSyncExternalStore } from 'react';
import { mediaOf } from './controls/use-media';

const DARK = '(prefers-color-scheme: dark)';

/** Calls back when the theme changes, by hand or with the system. */
function watchTheme(call: () => void): () => void {
  const media = mediaOf(DARK);
  const watch = new MutationObserver(call);
  watch.observe(document.documentElement, { attributeFilter: ['data-theme'] });
  media.addEventListener('change', call);
  return () => {
    watch.disconnect();
    media.removeEventListener('change', call);
  };
}

/** Whether dark is shown. */
export function isDark(): boolean {
  const { theme } = document.documentElement.dataset;
  return theme ? theme === 'graphite' : mediaOf(DARK).matches;
}

/** Shows dark or light from now on. */
export function chooseTheme(dark: boolean): void {
  const theme = dark ? 'graphite' : 'birch';
  document.documentElement.dataset.theme = theme;
  localStorage.setItem('theme', theme);
}

/** Whether dark is shown, following the system until chosen here. */
export function useDark(): [boolean, (dark: boolean) => void] {
  return [useSyncExternalStore(watchTheme, isDark, () => false), chooseTheme];
}

export function ThemeSwitch() {
  const [dark, set] = useDark();
  return (
    <button
      type="button"
      className="btn btn-ghost btn-sm btn-square"
      aria-label={dark ? 'Light' : 'Dark'}
      title={dark ? 'Light' : 'Dark'}
      onClick={() => set(!dark)}
    >
      {dark ? <Sun size={16} /> : <Moon size={16} />}
    </button>
  );
}
