// Keys that come while a text is not ready for them: held back, and done in it in their order once it is. None of them is meant for the frame.
let held = null;

export const isHeldBack = () => held !== null;
export function holdBack(keys = []) { held = [...keys, ...held ?? []]; }

// While a text opens, Escape ends what is meant for it, and keys behind that go where they go.
let opens = false, closed = null;
export function holdUntilOpen() {
  holdBack();
  [opens, closed] = [true, null];
}

// What was typed for a text that has opened, and whether Escape has ended it already.
export function typedUntilOpen() {
  const isClosed = closed !== null, keys = closed ?? letGo();
  closed = null;
  return { keys, isClosed };
}

// What is held back for a text whose frame is still to come is no other text's.
let isForNext = false;
export function holdForNext() {
  holdBack();
  isForNext = true;
}
export const isHeldForNext = () => isForNext;

// What was held back; from now on keys go where they go.
export function letGo() {
  const keys = held ?? [];
  held = null;
  [opens, isForNext] = [false, false];
  return keys;
}

export const insert = words => document.execCommand('insertText', false, words);

// What keys type, and words that came without keys.
export const wordsOf = keys => keys.map(({ key = '', words }) => words ?? (key === 'Enter' ? '\n' : key.length === 1 ? key : '')).join('');

// Behind what is held back: words, or something else to be done.
export function holdToo(item) { held.push(item); }

// What keys do with Ctrl in a text: as far as a word, or the text, goes.
const far = { ArrowLeft: ['left', 'word'], ArrowRight: ['right', 'word'], Backspace: ['backward', 'word'], Delete: ['forward', 'word'],
    Home: ['backward', 'documentboundary'], End: ['forward', 'documentboundary'] };
export const isFar = key => key in far;

// Goes as far, selects as far, or takes away what lies between.
export function goFar({ key, shiftKey }) {
  const removes = key === 'Backspace' || key === 'Delete', [direction, reach] = far[key], selection = getSelection(), { activeElement: field } = document;
  if (removes && field.selectionStart === field.selectionEnd) selection.modify('extend', direction, reach);
  else if (!removes) selection.modify(shiftKey ? 'extend' : 'move', direction, reach);
  if (removes) document.execCommand('delete');
}

document.addEventListener('keydown', event => {
  const { key, ctrlKey, metaKey, altKey, shiftKey } = event, control = ctrlKey || metaKey;
  if (held === null || altKey || (key === 'Escape' && !opens) || key === 'Shift' || (control && !isFar(key))) return;
  event.preventDefault();
  event.stopPropagation();
  if (key === 'Escape') {
    closed = letGo();
    return;
  }
  held.push({ key, shiftKey, control });
}, true);
