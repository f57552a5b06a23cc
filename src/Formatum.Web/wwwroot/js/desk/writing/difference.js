// How two states of a text differ.

// How much two texts share before they differ, and behind.
export function shared(one, other, most = Infinity) {
  const least = Math.min(one.length, other.length, most);
  let before = 0, behind = 0;
  while (before < least && one[before] === other[before]) before++;
  const rest = Math.min(one.length, other.length) - before;
  while (behind < rest && one[one.length - 1 - behind] === other[other.length - 1 - behind]) behind++;
  return { before, behind };
}

// Where what is typed differs from what is stored: all that goes over the line. What is typed with a setting switched begins where that was done,
// whatever stands around it.
export function difference(stored, text, next) {
  const { before: from, behind } = shared(stored, text, next);
  const to = stored.length - behind, begin = from === 0 ? 0 : stored.lastIndexOf('\n', from - 1) + 1, end = stored.indexOf('\n', to);
  return { from, to, text: text.slice(from, text.length - behind), within: stored.slice(begin, end < 0 ? undefined : end), begin };
}
