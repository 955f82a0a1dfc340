/** What an attack has come to. */
export interface Verdict {
  passed: boolean | null;
  said: string;
}

/** A line of the table: null is not run, which is never passed. */
export function say(name: string, { passed, said }: Verdict): void {
  const verdict = passed === null ? 'not run' : passed ? 'passed' : 'FAILED';
  console.log(`${name.padEnd(28)} ${verdict.padEnd(8)} ${said}`);
}
