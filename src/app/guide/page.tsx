import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { marked } from 'marked';
import { ShopTools } from '@/ui/palette/shop-tools';
import { PlaceLinks } from '@/ui/places/place-links';

export const metadata = { title: 'Guide · zealous grain' };

/** The guide that lies beside the program, with its pictures. */
export default async function Page() {
  const text = await readFile(path.resolve(/* turbopackIgnore: true */ process.cwd(), 'docs/guide.md'), 'utf8');
  const html = await marked.parse(text.replaceAll('](screenshots/', '](/guide/pictures/'));
  return (
    <div className="mx-auto max-w-6xl px-5 pb-10">
      <header className="flex flex-wrap items-center gap-4 py-4">
        <p className="slab text-2xl">Guide</p>
        <div className="flex-1">
          <PlaceLinks here="guide" />
        </div>
        <ShopTools />
      </header>
      {/* biome-ignore lint/security/noDangerouslySetInnerHtml: a text of ours */}
      <main className="guide panel mx-auto max-w-3xl px-8 py-6" dangerouslySetInnerHTML={{ __html: html }} />
    </div>
  );
}
