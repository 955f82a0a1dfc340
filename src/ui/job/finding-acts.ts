import type { Finding } from '@/core/findings/finding';
import { labelOf } from '@/core/findings/texts/text-of';
import type { Act } from '../controls/act';
import type { OpenScreen } from './use-screen';

/** Pixels a mm at which a place of a finding is looked at. */
const CLOSE = 16;

/** What can be done with a finding: to look at its place, from close by too, to go to what it is about, and to take what mends it. */
export function findingActs(screen: OpenScreen, f: Finding): Act[] {
  const { pick, setCamera, editor, fix, job } = screen;
  const { place, subject } = f;
  const pass = job.passes.find((p) => p.id === subject.pass);
  const layer = job.layers.find((l) => l.id === subject.layer);
  return [
    { name: 'Show it', keys: '', can: true, run: () => pick(f) },
    {
      name: 'Look at its place from close by',
      keys: '',
      can: place !== null,
      run: () => {
        pick(f);
        if (place) setCamera(() => ({ ...place, scale: CLOSE }));
      },
    },
    {
      name: pass ? 'Go to its pass' : 'Go to its layer',
      keys: '',
      can: pass !== undefined || layer !== undefined,
      run: () => {
        if (pass) {
          editor.go('Passes');
          editor.showPass(pass.id);
        } else if (layer) {
          editor.go('Arrange');
          editor.select([layer.id]);
        }
      },
    },
    ...f.fixes.map((o) => ({ name: labelOf(o), keys: '', can: true, run: () => fix(o) })),
  ];
}
