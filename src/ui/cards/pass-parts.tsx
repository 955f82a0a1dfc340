'use client';
import type { Cutter } from '@/core/cutter/cutter';
import type { Job } from '@/core/plan/job';
import type { Pass } from '@/core/plan/pass';
import type { PassSummary } from '@/core/plan/paths';
import { resolveTrenches } from '@/core/plan/trenches';
import type { Summary } from '../api';
import { AreaFields } from './area-fields';
import { CutoutFields, CutoutSentence } from './cutout-fields';
import { HoleFields, HoleSentence } from './hole-fields';
import {
  type Edit,
  FinishFields,
  FinishSentence,
  FlatFields,
  FlatSentence,
  LetterFields,
  LetterSentence,
  RoughFields,
  RoughSentence,
} from './pass-fields';
import { SkimFields, SkimSentence } from './skim-fields';

interface Told {
  job: Job;
  pass: Pass;
  cutter: Cutter;
  /** Of this very pass, as planned; undefined while it is not. */
  done: PassSummary | undefined;
  summary: Summary | null;
}

/** What a pass does and takes, in a sentence. */
export function PassSentence({ job, pass, cutter, done, summary }: Told) {
  const seconds = done?.seconds;
  switch (pass.kind) {
    case 'skim':
      return <SkimSentence job={job} pass={pass} seconds={seconds} />;
    case 'rough':
      return <RoughSentence pass={pass} seconds={seconds} />;
    case 'flat':
      return <FlatSentence seconds={seconds} flats={summary?.flats ?? null} />;
    case 'finish':
      return <FinishSentence pass={pass} cutter={cutter} seconds={seconds} />;
    case 'letter':
      return <LetterSentence seconds={seconds} cutter={cutter} />;
    case 'hole':
      return <HoleSentence pass={pass} cutter={cutter} seconds={seconds} />;
    case 'cutout':
      return (
        <CutoutSentence
          job={job}
          pass={pass}
          seconds={seconds}
          facts={done?.cutout ?? null}
          proof={summary?.cutouts.find((c) => c.pass === pass.id)}
        />
      );
  }
}

interface Edited {
  job: Job;
  pass: Pass;
  cutter: Cutter;
  edit: Edit;
  change(f: (j: Job) => void): void;
}

function OwnFields({ job, pass, cutter, edit, change }: Edited) {
  switch (pass.kind) {
    case 'skim':
      return <SkimFields job={job} pass={pass} cutter={cutter} edit={edit} change={change} />;
    case 'rough':
      return <RoughFields pass={pass} cutter={cutter} edit={edit} />;
    case 'flat':
      return <FlatFields pass={pass} cutter={cutter} edit={edit} />;
    case 'finish':
      return <FinishFields pass={pass} cutter={cutter} edit={edit} job={job} />;
    case 'letter':
      return <LetterFields pass={pass} cutter={cutter} edit={edit} />;
    case 'hole':
      return <HoleFields job={job} pass={pass} cutter={cutter} edit={edit} />;
    case 'cutout':
      return <CutoutFields job={job} pass={pass} cutter={cutter} edit={edit} />;
  }
}

/** The numbers of a pass, and where it works. */
export function PassFields(props: Edited) {
  const { job, pass, edit } = props;
  return (
    <>
      <OwnFields {...props} />
      {'area' in pass && pass.kind !== 'letter' && (
        <AreaFields job={job} pass={pass} trench={resolveTrenches(job)[job.passes.indexOf(pass)]} edit={edit} />
      )}
    </>
  );
}
