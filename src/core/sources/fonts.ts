/** The fonts that come with the program (SIL Open Font License), by their place among the packages. */
export const FONTS = [
  { id: 'slab', name: 'Slab', file: '@fontsource/zilla-slab/files/zilla-slab-latin-600-normal.woff' },
  { id: 'slab-bold', name: 'Slab, bold', file: '@fontsource/zilla-slab/files/zilla-slab-latin-700-normal.woff' },
  { id: 'roman', name: 'Roman', file: '@fontsource/lora/files/lora-latin-600-normal.woff' },
  { id: 'roman-italic', name: 'Roman, italic', file: '@fontsource/lora/files/lora-latin-600-italic.woff' },
  { id: 'script', name: 'Script', file: '@fontsource/great-vibes/files/great-vibes-latin-400-normal.woff' },
] as const;
