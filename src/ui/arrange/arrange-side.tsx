'use client';
import { useQuery } from '@tanstack/react-query';
import { disableGlobalCursorStyles, Panel, PanelGroup, PanelResizeHandle } from 'react-resizable-panels';
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
import type { LayerListProps } from './layer-row';
import { LedgerBar } from './ledger';
import type { CoarseLook } from './looks';
import { PlaqueCard } from './plaque-card';
import { SeveralCard } from './several-card';
import type { AddFiles } from './use-add-files';

// A page may not write styles into itself.
disableGlobalCursorStyles();

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
  files: AddFiles;
  acts: LayerListProps['acts'];
  onRemove(ids: readonly string[]): void;
  renaming: string | null;
  setRenaming(id: string | null): void;
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
      <AddMenu
        {...{ job, change, onSelect }}
        selectLater={props.selectLater}
        turned={props.turned}
        files={props.files}
      />
      <LedgerBar job={job} facts={facts} />
      <PanelGroup direction="vertical" autoSaveId="zg-arrange" className="min-h-0 flex-1">
        <Panel defaultSize={24} minSize={12} className="overflow-y-auto!">
          <LayerList
            job={job}
            selected={selected}
            problems={coarse?.problems ?? {}}
            thin={coarse?.thin ?? {}}
            onSelect={onSelect}
            change={change}
            acts={props.acts}
            renaming={props.renaming}
            setRenaming={props.setRenaming}
          />
        </Panel>
        <PanelResizeHandle
          aria-label="Height of the list of layers"
          className="flex h-2.5 shrink-0 items-center justify-center border-y border-base-300 bg-base-200 focus-visible:outline-2 pointer-coarse:h-6"
        >
          <span className="h-1 w-8 rounded-full bg-base-300" aria-hidden />
        </PanelResizeHandle>
        <Panel minSize={20} className="overflow-y-auto!">
          {one ? (
            <LayerCard
              key={one.id}
              job={job}
              layer={one}
              close={coarse?.close ?? null}
              {...shaping}
              onSelect={onSelect}
              onRemove={props.onRemove}
              info={asset.data?.info ?? null}
            />
          ) : chosen.length > 1 ? (
            <SeveralCard job={job} selected={selected} {...shaping} onSelect={onSelect} onRemove={props.onRemove} />
          ) : (
            <PlaqueCard {...props} />
          )}
        </Panel>
      </PanelGroup>
    </div>
  );
}
