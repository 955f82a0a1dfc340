import { readFileSync } from 'node:fs';
import path from 'node:path';

const FONTS = [
  ['Zilla Slab', '600', '@fontsource/zilla-slab/files/zilla-slab-latin-600-normal.woff2'],
  [
    'Atkinson Hyperlegible Next',
    '200 800',
    '@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2',
  ],
] as const;

/** The page's own fonts, within it: nothing else is served to a device that is not paired. */
const fontFaces = () =>
  FONTS.map(([family, weight, file]) => {
    const bytes = readFileSync(path.resolve('node_modules', file)).toString('base64');
    return `@font-face{font-family:"${family}";font-weight:${weight};src:url(data:font/woff2;base64,${bytes}) format("woff2")}`;
  }).join('');

const STYLE = `
:root{color-scheme:light dark;--bg:#f4eee2;--panel:#fbf8f1;--line:#ddd2bf;--ink:#2b2520;--soft:#6c5f4f;--paper:#fffefa;--blue:#1f5f8b;--on-blue:#fffefa;--red:#a8431f}
@media(prefers-color-scheme:dark){:root{--bg:#1a1c1f;--panel:#23262a;--line:#43474d;--ink:#f1e8d6;--soft:#b9ad99;--paper:#1a1c1f;--blue:#8cc4ea;--on-blue:#10202c;--red:#f0946c}}
*{box-sizing:border-box}
body{margin:0;min-height:100vh;display:flex;align-items:center;justify-content:center;padding:1rem;background:var(--bg);color:var(--ink);font:16px/1.45 "Atkinson Hyperlegible Next",system-ui,sans-serif}
main{width:100%;max-width:27rem;background:var(--panel);border:1px solid var(--line);border-radius:.6rem;padding:1.5rem}
h1{margin:0 0 .25rem;font:600 1.5rem/1.2 "Zilla Slab",Georgia,serif}
h1 span{color:var(--blue)}
p{margin:.5rem 0}
.soft{color:var(--soft);font-size:.9rem}
form+.soft{margin-top:1rem}
.wrong{color:var(--red)}
label{display:block;margin-top:.9rem;font-size:.9rem;color:var(--soft)}
input{width:100%;margin-top:.2rem;padding:.6rem .7rem;border:1px solid var(--line);border-radius:.4rem;background:var(--paper);color:var(--ink);font:inherit}
input[name=code]{font-size:1.4rem;letter-spacing:.12em;text-transform:uppercase}
input:focus-visible,button:focus-visible{outline:2px solid var(--blue);outline-offset:2px}
button{width:100%;margin-top:1.1rem;padding:.7rem;border:0;border-radius:.4rem;background:var(--blue);color:var(--on-blue);font:inherit;font-weight:600;cursor:pointer}
`;

let faces: string | null = null;

const escaped = (text: string) => text.replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);

export interface PairPage {
  /** For the page's own style. */
  nonce: string;
  /** Whether the connection is encrypted. */
  secure: boolean;
  /** What the device is proposed to be called. */
  name: string;
  /** What went wrong with the last try. */
  wrong: string | null;
}

/** The only page that a device gets before it is paired. */
export function pairPage({ nonce, secure, name, wrong }: PairPage): string {
  faces ??= fontFaces();
  return `<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1">
<title>Pair this device</title><link rel="icon" href="data:,">
<style nonce="${nonce}">${faces}${STYLE}</style></head>
<body><main>
<h1>zealous <span>grain</span></h1>
<p>This device is not paired with the shop yet. The pairing code is shown at the machine that runs it: on the shop's page under Other devices, and in its terminal.</p>
${wrong ? `<p class="wrong" role="alert">${escaped(wrong)}</p>` : ''}
<form method="post" action="/pair">
<label>Pairing code<input name="code" required autofocus autocomplete="off" autocapitalize="characters" spellcheck="false" maxlength="20" placeholder="ABCD-EFGH"></label>
<label>What this device is called<input name="name" required maxlength="60" autocomplete="off" value="${escaped(name)}"></label>
<button>Pair this device</button>
</form>
${
  secure
    ? '<p class="soft">This connection is encrypted.</p>'
    : '<p class="soft"><b>This connection is plain http.</b> Whoever is on the same network can overhear what goes over it, this code and the pairing too. Use it only on a network of your own that you trust, or set up https.</p>'
}
</main></body></html>`;
}
