'use client';
import { Moon, Sun } from 'lucide-react';
import { useEffect, useState } from 'react';

/** Whether dark is shown, following the system until chosen here. */
export function useDark(): [boolean, (dark: boolean) => void] {
  const [dark, setDark] = useState(false);
  useEffect(() => {
    const media = matchMedia('(prefers-color-scheme: dark)');
    const read = () =>
      setDark(
        document.documentElement.dataset.theme === 'graphite' ||
          (!document.documentElement.dataset.theme && media.matches),
      );
    read();
    const watch = new MutationObserver(read);
    watch.observe(document.documentElement, { attributeFilter: ['data-theme'] });
    media.addEventListener('change', read);
    return () => {
      watch.disconnect();
      media.removeEventListener('change', read);
    };
  }, []);
  return [
    dark,
    (d) => {
      document.documentElement.dataset.theme = d ? 'graphite' : 'birch';
      localStorage.setItem('theme', d ? 'graphite' : 'birch');
    },
  ];
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
