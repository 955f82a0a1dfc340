/** Set by the gate on what it lets through, and taken off everything that comes in: what a request says of it itself is nothing. */
export const GATE_HEADER = 'x-zealous-grain-gate';

/** Where the process keeps what the gate's mark must be; unset while there is no gate. */
export const GATE_TOKEN = 'ZG_GATE_TOKEN';

/** Whether a request came through the gate, from a paired device. */
export function cameThroughGate(headers: Headers): boolean {
  const token = process.env[GATE_TOKEN];
  return token !== undefined && token !== '' && headers.get(GATE_HEADER) === token;
}
