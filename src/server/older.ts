import type { PlanState } from '../contract/plans';

/** Programs that an older version of this program proved: they go out only when that is what is asked for. */
export class OlderProof extends Error {}

/** A plan whose programs may go out. @throws OlderProof when it is of an older version and the request does not say that it knows */
export function wanted(knowing: 'yes' | undefined, state: PlanState): PlanState {
  if (state.older && knowing === undefined)
    throw new OlderProof('proven by an older version: prove it again, or ask for its programs knowing that');
  return state;
}
