'use client';
import { ArrangeSide } from '../arrange/arrange-side';
import { BoardCard } from '../cards/board-card';
import { NoPassCard, PassCard } from '../cards/pass-card';
import { ProofCard } from '../cards/proof-card';
import { RunCard } from '../cards/run-card';
import { Footer } from './progress';
import type { OpenScreen } from './use-screen';

/** The card of the station: what is selected, its numbers and what follows from them. */
function StationCard({ screen }: { screen: OpenScreen }) {
  const { job, change, library, station, plan, fresh, facts, pass, state, id } = screen;
  const cards = { job, change, library };
  switch (station) {
    case 'Board':
      return <BoardCard {...cards} facts={facts} onSetup={screen.showSetup} />;
    case 'Arrange':
      return (
        <ArrangeSide
          {...cards}
          id={id}
          revision={state.revision}
          selected={screen.layers}
          coarse={screen.look.coarse}
          facts={facts}
          onSelect={screen.setLayers}
          onMissed={screen.setMissed}
        />
      );
    case 'Passes':
      return pass ? (
        <PassCard
          {...cards}
          id={id}
          pass={pass}
          plan={plan}
          fresh={fresh}
          onSelect={screen.selectPass}
          onSetup={screen.showSetup}
        />
      ) : (
        <NoPassCard {...cards} onSelect={screen.selectPass} />
      );
    case 'Proof':
      return (
        <ProofCard
          id={id}
          plan={plan}
          fresh={fresh}
          stopping={screen.stopping}
          seconds={fresh ? (state.plan?.summary?.seconds ?? null) : null}
          passes={job.passes}
          picked={screen.picked}
          onPick={screen.pick}
          onFix={screen.fix}
        />
      );
    case 'Run':
      return (
        <RunCard {...cards} plan={plan} fresh={fresh} files={state.plan?.summary?.programs.map((p) => p.file) ?? []} />
      );
  }
}

export function SideCard({ screen }: { screen: OpenScreen }) {
  const { state, station, setStation, stopping } = screen;
  return (
    <aside className="flex w-[306px] shrink-0 flex-col border-l border-base-300 bg-base-100">
      <div className="min-h-0 flex-1 overflow-y-auto">
        <StationCard screen={screen} />
      </div>
      <Footer
        state={state}
        stopping={stopping}
        onRun={() => setStation('Run')}
        onStopping={() => setStation('Proof')}
        onRunStation={station === 'Run'}
      />
    </aside>
  );
}
