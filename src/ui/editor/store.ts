/** A state that is replaced and never changed in place, and whoever wants to know when it is. */
export class Store<S extends object> {
  private readonly listeners = new Set<() => void>();

  constructor(protected state: S) {}

  readonly get = (): S => this.state;
  readonly subscribe = (call: () => void): (() => void) => {
    this.listeners.add(call);
    return () => this.listeners.delete(call);
  };

  protected set(s: Partial<S>): void {
    this.state = { ...this.state, ...s };
    for (const call of this.listeners) call();
  }
}
