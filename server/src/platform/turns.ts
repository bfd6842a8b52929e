/**
 * Acts of one name one after the other within this process: who waits their turn holds no connection of the database.
 * The lock in the database still rules between processes.
 */
export class Turns {
  private readonly last = new Map<string, Promise<unknown>>();

  async take<T>(name: string, act: () => Promise<T>): Promise<T> {
    const before = this.last.get(name) ?? Promise.resolve();
    const mine = before.catch(() => undefined).then(act);
    this.last.set(name, mine);
    try {
      return await mine;
    } finally {
      if (this.last.get(name) === mine) this.last.delete(name);
    }
  }
}
