/** A function of an object whose answer is kept as long as the object lives. For objects that are never changed. */
export function remembered<K extends object, V>(build: (key: K) => V): (key: K) => V {
  const known = new WeakMap<K, V>();
  return (key) => {
    let value = known.get(key);
    if (value === undefined) known.set(key, (value = build(key)));
    return value;
  };
}
