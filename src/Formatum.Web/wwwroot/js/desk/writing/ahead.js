// Keys that come while a text is not ready for them: held back, and done in it in their order once it is. None of them is meant for the frame.
let held = null;

export const isHeldBack = () => held !== null;
export function holdBack(keys = []) { held = [...keys, ...held ?? []]; }

// What was held back; from now on keys go where they go.
export function letGo() {
  const keys = held ?? [];
  held = null;
  return keys;
}

export const insert = words => document.execCommand('insertText', false, words);

// What keys type, and words that came without keys.
export const wordsOf = keys => keys.map(({ key = '', words }) => words ?? (key === 'Enter' ? '\n' : key.length === 1 ? key : '')).join('');

// Behind what is held back: words, or something else to be done.
export function holdToo(item) { held.push(item); }

document.addEventListener('keydown', event => {
  const { key, ctrlKey, metaKey, altKey, shiftKey } = event;
  if (held === null || ctrlKey || metaKey || altKey || key === 'Escape' || key === 'Shift') return;
  event.preventDefault();
  event.stopPropagation();
  held.push({ key, shiftKey });
}, true);
