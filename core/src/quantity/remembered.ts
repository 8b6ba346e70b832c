/** A function of a thing that never changes, worked out once for as long as the thing is there. What has changed is another thing. */
export function remembered<Key extends object, Value>(of: (key: Key) => Value): (key: Key) => Value {
  const known = new WeakMap<Key, { readonly value: Value }>();
  return (key) => {
    const held = known.get(key) ?? { value: of(key) };
    known.set(key, held);
    return held.value;
  };
}
