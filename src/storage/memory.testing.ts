/** A browser's storage that lives in memory, and can be full. */
export class Memory {
  readonly map = new Map<string, string>();
  full = false;
  getItem = (key: string) => Promise.resolve(this.map.get(key) ?? null);
  /** What a write is refused with. */
  refusal: Error = Object.assign(new Error('The quota has been exceeded.'), { type: 'WebStorageError' });
  setItem = (key: string, value: string) => this.setMany({ [key]: value });
  getMany = (keys: string[]) =>
    Promise.resolve(Object.fromEntries(keys.map((key) => [key, this.map.get(key) ?? null])));
  removeMany = (keys: string[]) => Promise.resolve(keys.forEach((key) => this.map.delete(key)));
  removeItem = (key: string) => Promise.resolve(void this.map.delete(key));
  getAllKeys = () => Promise.resolve([...this.map.keys()]);
  setMany = (entries: Record<string, string>) => {
    if (this.full) return Promise.reject(this.refusal);
    for (const [key, value] of Object.entries(entries)) this.map.set(key, value);
    return Promise.resolve();
  };
}

/** Lets all that was answered be heard. */
export const settled = () => new Promise<void>((done) => setImmediate(done));
