'use client';
import { useMemo } from 'react';
import { barOf } from '@/core/proof/bar';
import { ArrangeSide } from '../arrange/arrange-side';
import { BoardCard } from '../cards/board-card';
import { PassCard } from '../cards/pass-card';
import { NoPassCard } from '../cards/pass-more';
import { ProofCard } from '../cards/proof-card';
import { RecipePanel } from '../cards/recipe-panel';
import { RunCard } from '../cards/run-card';
import { DraftsOf } from '../controls/typed';
import { usePhone } from '../controls/use-media';
import { termFigures } from '../terms/term-figures';
import { TermsOf } from '../terms/term-mark';
import { removeSetup } from './board-acts';
import { findingActs } from './finding-acts';
import { layerActs, removeSaid } from './layer-acts';
import { Footer } from './progress';
import { Sheet } from './sheet';
import type { OpenScreen } from './use-screen';

/** The card of the station: what is selected, its numbers and what follows from them. */
function StationCard({ screen }: { screen: OpenScreen }) {
  const { job, change, library, bits, station, plan, fresh, facts, pass, state, editor, id } = screen;
  const cards = { job, change, library, bits };
  const { surface } = screen;
  const radius = job.board.drum && station === 'Proof' ? job.board.thickness : null;
  const bar = useMemo(
    () => (radius !== null && surface?.proven && surface.cut ? barOf(surface.cut, radius) : null),
    [radius, surface],
  );
  switch (station) {
    case 'Board':
      return (
        <BoardCard
          {...cards}
          facts={facts}
          summary={screen.summary}
          onSetup={screen.showSetup}
          onRemoveSetup={() => removeSetup(screen)}
        />
      );
    case 'Arrange':
      return (
        <ArrangeSide
          {...cards}
          id={id}
          revision={state.revision}
          selected={screen.layers}
          coarse={screen.look.coarse}
          axis={screen.axis}
          onAxis={screen.setAxis}
          tryOut={screen.tryOut}
          facts={facts}
          turned={screen.turned}
          onSelect={editor.select}
          selectLater={editor.selectLater}
          files={screen.files}
          acts={(ids) => layerActs(screen, ids)}
          onRemove={(ids) => removeSaid(screen, ids)}
          renaming={screen.renaming}
          setRenaming={screen.setRenaming}
          onMissed={screen.setMissed}
        />
      );
    case 'Passes':
      return (
        <>
          {pass ? (
            <PassCard
              {...cards}
              id={id}
              pass={pass}
              plan={plan}
              fresh={fresh}
              onSelect={editor.showPass}
              onSetup={screen.showSetup}
            />
          ) : (
            <NoPassCard {...cards} onSelect={editor.showPass} />
          )}
          <RecipePanel {...cards} />
        </>
      );
    case 'Proof':
      return (
        <ProofCard
          id={id}
          plan={plan}
          fresh={fresh}
          stopping={screen.stopping}
          seconds={fresh ? (state.plan?.summary?.seconds ?? null) : null}
          job={job}
          bits={bits}
          bar={bar}
          picked={screen.picked}
          onPick={screen.pick}
          onFix={screen.fix}
          acts={(f) => findingActs(screen, f)}
        />
      );
    case 'Run':
      return (
        <RunCard {...cards} plan={plan} fresh={fresh} files={state.plan?.summary?.programs.map((p) => p.file) ?? []} />
      );
  }
}

export function SideCard({ screen }: { screen: OpenScreen }) {
  const { state, station, editor, stopping, job, pass, layers } = screen;
  const card = [station, job.setup.id, station === 'Passes' ? pass?.id : layers.join(' ')].join(' ');
  const drafts = useMemo(() => ({ drafts: editor.drafts, card }), [editor, card]);
  const figures = useMemo(() => {
    const layer = layers.length === 1 ? job.layers.find((l) => l.id === layers[0]) : undefined;
    return termFigures(job, station === 'Passes' ? (pass ?? null) : null, layer ?? null);
  }, [job, station, pass, layers]);
  const phone = usePhone();
  const looking = phone && (station === 'Board' || station === 'Arrange' || station === 'Passes');
  return (
    <Sheet
      title={station}
      foot={
        <Footer
          state={state}
          stopping={stopping}
          onRun={() => editor.go('Run')}
          onStopping={() => editor.go('Proof')}
          onRunStation={station === 'Run'}
        />
      }
    >
      <DraftsOf.Provider value={drafts}>
        <TermsOf.Provider value={figures}>
          {looking ? (
            <fieldset disabled className="h-full">
              <legend className="soft px-4 pt-2 text-sm">To be looked at here; it is changed on a wider screen.</legend>
              <StationCard screen={screen} />
            </fieldset>
          ) : (
            <StationCard screen={screen} />
          )}
        </TermsOf.Provider>
      </DraftsOf.Provider>
    </Sheet>
  );
}
