'use client';
import type { CutoutPass } from '@/core/passes/cutout/schema';
import { cutoutFacts } from '@/core/plan/plan-passes';
import { trimNumber } from '@/core/units/length';
import { sayLength } from '@/core/units/say';
import { Choice, Folded, LengthField, NumberField, Tick } from '../controls/fields';
import { HalfSentence, StepBetween, ThroughFields } from './cutout-half';
import { Ramp, Stepdown } from './down-and-over';
import type { Edited, KindCard, Told } from './kind-card';
import { OutlineFields } from './outline-fields';
import { Took } from './took';

/** How a cut-out's depths add up, and what holds the piece at the end, as the proof found it. */
function CutoutSentence({ job, pass, done, summary }: Told<CutoutPass>) {
  const facts = cutoutFacts(done);
  if (pass.depth !== null) return <HalfSentence {...{ job, pass, done }} />;
  const proof = summary?.cutouts.find((c) => c.pass === pass.id);
  if (!facts)
    return (
      <>
        Cuts through the board, <b>{sayLength(pass.into)}</b> into the spoilboard.
      </>
    );
  const open = -facts.start;
  /** Wood that the cut goes through, and what the board's other side has been cut before. */
  const wood = -facts.bottom - pass.into - open;
  const behind = job.board.thickness - open - wood;
  const sections = proof?.tabs.map((t) => t.section) ?? [];
  return (
    <>
      {open > 0.01 ? (
        <>
          <b>{sayLength(open)}</b> are open already, <b>{sayLength(wood)}</b> are left
          {behind > 0.01 && <> over the {sayLength(behind)} that its other side has lost</>}: together the board's{' '}
          {sayLength(job.board.thickness)}
        </>
      ) : (
        <>
          Cuts <b>{sayLength(wood)}</b> from the top
          {behind > 0.01 && <>, over the {sayLength(behind)} that its other side has lost</>}
        </>
      )}
      , and <b>{sayLength(pass.into)}</b> into the spoilboard. {facts.levels} {facts.levels === 1 ? 'lap' : 'laps'}
      {(pass.last > 0 || pass.floor > 0) && ' and a last one'}
      <Took done={done} />.{' '}
      {proof?.joined ? (
        <span className="text-accent">It is still joined to its frame beside the tabs.</span>
      ) : proof && proof.tabs.length > 0 ? (
        <>
          The piece then hangs by its {proof.tabs.length} {proof.tabs.length === 1 ? 'tab' : 'tabs'} alone, of{' '}
          <b>{trimNumber(Math.min(...sections), 0)} mm²</b> or more.
        </>
      ) : (
        proof && <span className="text-accent">Nothing holds the piece at the end but tape or vacuum.</span>
      )}
      <StepBetween job={job} />
    </>
  );
}

/** How a cut-out that goes through ends: in the spoilboard, and on which tabs. */
function TabFields({ job, pass, cutter, set }: Edited<CutoutPass>) {
  const { tabs } = pass;
  return (
    <>
      <LengthField
        label="Into the spoilboard"
        value={pass.into}
        min={0}
        max={10}
        onChange={(v) => set((p) => (p.into = v))}
        note={
          job.setup.spoilboard !== null ? undefined : (
            <span className="text-accent">there is none under this board</span>
          )
        }
      />
      <NumberField
        label="Tabs"
        value={tabs.count}
        min={0}
        max={60}
        suffix=""
        onChange={(v) => set((p) => Object.assign(p.tabs, { count: Math.round(v), at: null }))}
        note={
          tabs.count === 0 ? (
            <span className="text-accent">only with tape or vacuum: the piece comes loose</span>
          ) : tabs.at ? (
            <button type="button" className="link" onClick={() => set((p) => (p.tabs.at = null))}>
              let them place themselves
            </button>
          ) : (
            'drag them on the board to other places'
          )
        }
      />
      {tabs.count > 0 && (
        <>
          <LengthField
            label="Tab length"
            value={tabs.length}
            min={0}
            open
            max={200}
            onChange={(v) => set((p) => (p.tabs.length = v))}
            note="of the wood that stays, at its narrowest"
          />
          <LengthField
            label="Tab thickness"
            value={tabs.thickness}
            min={0}
            open
            max={100}
            onChange={(v) => set((p) => (p.tabs.thickness = v))}
          />
          <Tick
            label="Sloped sides"
            value={tabs.sloped}
            onChange={(v) => set((p) => (p.tabs.sloped = v))}
            note={
              !tabs.sloped && cutter.maxPlungeDepth === 0 ? (
                <span className="text-accent">this bit may not go straight down behind an upright tab</span>
              ) : undefined
            }
          />
        </>
      )}
    </>
  );
}

/** The numbers of a cut-out. */
function CutoutFields(edited: Edited<CutoutPass>) {
  const { job, pass, cutter, set } = edited;
  return (
    <>
      <OutlineFields job={job} outline={pass.outline} set={(f) => set((p) => f(p.outline))} />
      <Choice
        label="The bit runs"
        value={pass.side}
        options={[
          ['outside', 'outside of the line'],
          ['inside', 'inside of the line'],
          ['on', 'on the line'],
        ]}
        onChange={(v) => set((p) => (p.side = v))}
      />
      <Choice
        label="Starts"
        value={pass.start}
        options={[
          ['machined', 'at the open depth'],
          ['top', "at the board's top"],
        ]}
        onChange={(v) => set((p) => (p.start = v))}
      />
      <ThroughFields {...edited} />
      <Stepdown pass={pass} cutter={cutter} set={(v) => set((p) => (p.stepdown = v))} />
      {pass.depth === null && <TabFields {...edited} />}
      <Folded title="Finishing lap, ramp and entry">
        <LengthField
          label="Stock left at the wall"
          value={pass.last}
          min={0}
          max={5}
          onChange={(v) => set((p) => (p.last = v))}
          note="for one light lap at full depth in climb direction"
        />
        {pass.depth === null && (
          <LengthField
            label="Stock left below"
            value={pass.floor}
            min={0}
            max={20}
            onChange={(v) => set((p) => (p.floor = v))}
            note="a floor that only the finishing lap takes away"
          />
        )}
        <Ramp {...{ pass, cutter, set }} down={pass.stepdown} note="along the line" />
        <LengthField
          label="Entry"
          value={pass.lead}
          min={0}
          max={50}
          onChange={(v) => set((p) => (p.lead = v))}
          note="from the waste, at 45 degrees"
        />
      </Folded>
    </>
  );
}

export const cutoutCard: KindCard<'cutout'> = { label: 'Cut-out', Sentence: CutoutSentence, Fields: CutoutFields };
