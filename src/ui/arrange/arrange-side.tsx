'use client';
import { useQuery } from '@tanstack/react-query';
import { ask } from '@/contract/ask';
import { ASSETS } from '@/contract/assets';
import type { SurfaceFacts } from '@/core/arrange/compose';
import type { Library } from '@/core/doc/library';
import type { Grid } from '@/core/field/height-field';
import type { SetupView } from '@/core/setup/view';
import { AddMenu } from './add-menu';
import { LayerCard } from './layer-card';
import type { Shaping } from './layer-card-props';
import { LayerList } from './layer-list';
import { LedgerBar } from './ledger';
import type { CoarseLook } from './looks';
import { PlaqueCard } from './plaque-card';
import { SeveralCard } from './several-card';

interface Props extends Omit<Shaping, 'section'> {
  id: string;
  job: SetupView;
  revision: string | null;
  selected: string[];
  coarse: CoarseLook | null;
  facts: SurfaceFacts | null;
  /** Whether the board is shown half a turn round. */
  turned: boolean;
  library: Library | undefined;
  onSelect(ids: readonly string[]): void;
  /** What selects layers that arrive later, unless something else has been selected by then. */
  selectLater(): (ids: readonly string[]) => void;
  onMissed(map: { grid: Grid; mask: Uint8Array } | null): void;
}

/** The side of the Arrange station: what can be added, the depth budget, the layers in order, and the card of what is selected. */
export function ArrangeSide(props: Props) {
  const { job, selected, coarse, facts, change, onSelect } = props;
  const chosen = job.layers.filter((l) => selected.includes(l.id));
  const one = chosen.length === 1 ? chosen[0] : null;
  const shaping = {
    section: coarse?.section ?? null,
    axis: props.axis,
    onAxis: props.onAxis,
    change,
    tryOut: props.tryOut,
  };
  const hash = one && 'hash' in one.source ? one.source.hash : null;
  const asset = useQuery({
    queryKey: ['asset', hash],
    queryFn: () => ask(ASSETS.read, { hash: hash! }),
    enabled: hash !== null,
    staleTime: Infinity,
  });
  return (
    <div className="flex h-full flex-col">
      <AddMenu {...{ job, change, onSelect }} selectLater={props.selectLater} turned={props.turned} />
      <LedgerBar job={job} facts={facts} />
      <div className="max-h-[34%] min-h-24 shrink-0 overflow-y-auto border-b border-base-300">
        <LayerList
          job={job}
          selected={selected}
          problems={coarse?.problems ?? {}}
          thin={coarse?.thin ?? {}}
          onSelect={onSelect}
          change={change}
        />
      </div>
      <div className="min-h-0 flex-1 overflow-y-auto">
        {one ? (
          <LayerCard
            key={one.id}
            job={job}
            layer={one}
            close={coarse?.close ?? null}
            {...shaping}
            onSelect={onSelect}
            info={asset.data?.info ?? null}
          />
        ) : chosen.length > 1 ? (
          <SeveralCard job={job} selected={selected} {...shaping} onSelect={onSelect} />
        ) : (
          <PlaqueCard {...props} />
        )}
      </div>
    </div>
  );
}
