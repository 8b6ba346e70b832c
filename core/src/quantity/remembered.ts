/** A function of a thing that never changes, worked out once for as long as the thing is there. What has changed is another thing. */
export function remembered<Key extends object, Value>(of: (key: Key) => Value): (key: Key) => Value {
  const known = new WeakMap<Key, { readonly value: Value }>();
  return (key) => {
    const held = known.get(key) ?? { value: of(key) };
    known.set(key, held);
    return held.value;
  };
}

/** A function of a number, worked out once for each while there are not too many of them. @param most so many are remembered; then all are forgotten */
export function rememberedNumbers<Value>(of: (key: number) => Value, most: number): (key: number) => Value {
  const known = new Map<number, Value>();
  return (key) => {
    const held = known.get(key);
    if (held !== undefined) return held;
    if (known.size >= most) known.clear();
    const value = of(key);
    known.set(key, value);
    return value;
  };
}
