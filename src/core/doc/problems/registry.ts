import type { Found } from '../../findings/finding';
import type { Job } from '../job';
import { drums } from './drum';
import { empty } from './empty';
import { ids } from './ids';
import { oneFile } from './one-file';
import { references } from './references';
import { turnedForms } from './turned';
import { values } from './values';

/** What is looked for in a document as it stands; what passes have wrong with their bits is their kinds' own (passes/problems.ts). */
export const DOCUMENT_CHECKS: ((job: Job) => Found[])[] = [values, ids, empty, references, oneFile, drums, turnedForms];
