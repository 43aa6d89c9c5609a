/** Numbers what was seen by its content: what is equal has one number, in whatever object it stands. */
export class Contents {
  private readonly numbers = new Map<string, number>();
  private readonly known = new Map<readonly PropertyKey[], WeakMap<object, number>>();

  /** The number of these parts of it. One list of parts is one object, so that each thing is gone through once. */
  of<Seen extends object>(seen: Seen, parts: readonly (keyof Seen)[]): number {
    let known = this.known.get(parts);
    if (!known) this.known.set(parts, (known = new WeakMap()));
    let number = known.get(seen);
    if (number === undefined) {
      const content = JSON.stringify(parts.map((part) => seen[part] ?? String(seen[part])));
      number = this.numbers.get(content) ?? this.numbers.size + 1;
      this.numbers.set(content, number);
      known.set(seen, number);
    }
    return number;
  }
}

/** Things made once for each key. */
export class Memo<Thing> {
  private readonly things = new Map<string, Thing>();

  get(key: string, make: () => Thing): Thing {
    let thing = this.things.get(key);
    if (thing === undefined) this.things.set(key, (thing = make()));
    return thing;
  }
}
