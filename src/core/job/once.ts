/**
 * Work done once for each thing it is about, and name of a part of it: a job, and what is made of one, is never changed; a
 * changed one is another. A job of thousands of readings is judged in time that grows with them, not with their square.
 */
export function once<About extends object, Value, Name = void>(
  work: (about: About, name: Name) => Value,
): (about: About, name: Name) => Value {
  const known = new WeakMap<About, Map<Name, Value>>();
  return (about, name) => {
    let ofThis = known.get(about);
    if (!ofThis) known.set(about, (ofThis = new Map<Name, Value>()));
    if (!ofThis.has(name)) ofThis.set(name, work(about, name));
    return ofThis.get(name) as Value;
  };
}
