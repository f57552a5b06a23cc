// The one owner of what the Desk's page knows: what is chosen, the tool in hand, the revision that is shown. Views and tools subscribe.

const values = {
  // Ids of the frames that are chosen; the first is the one to go by.
  selection: [],
  // Whether somebody has gone into the picture of the one chosen frame.
  inside: false,
  // What the pointer does: "pick", or what it makes.
  tool: 'pick',
  // The publication's revision that the page shows, with everything before it.
  revision: 0,
  // The number of the spread that is shown; below 0, that of a master.
  spread: 0,
  // Whether the points of an outline are being changed.
  shaping: false,
  // The text frame that is being typed in; null for none.
  writing: null,
  // The stretch of its text that is meant, as "12-40"; null for all of it.
  range: null,
  // Screen pixels to a point.
  scale: 1,
  // Counts the answers that were shown.
  answered: 0,
};

const watchers = new Map();

export const state = Object.freeze(Object.defineProperties({}, Object.fromEntries(Object.keys(values)
    .map(name => [name, { get: () => values[name], enumerable: true }]))));

const same = (a, b) => a === b || (Array.isArray(a) && Array.isArray(b) && a.join() === b.join());

export function change(next) {
  const changed = Object.keys(next).filter(name => !same(values[name], next[name]));
  Object.assign(values, next);
  const told = new Set(changed.flatMap(name => [...(watchers.get(name) ?? [])]));
  told.forEach(watcher => watcher(state));
}

// Calls when one of the named values has changed: once, however many did. Gives what ends that.
export function watch(names, watcher) {
  for (const name of names) {
    if (!watchers.has(name)) watchers.set(name, new Set());
    watchers.get(name).add(watcher);
  }
  return () => { for (const name of names) watchers.get(name).delete(watcher); };
}
