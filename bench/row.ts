/** A line of the bench: what was measured, and the figure. */
export const row = (name: string, value: string) => console.log(`${name.padEnd(58)} ${value}`);
