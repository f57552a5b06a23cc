// Keys that come while a text is not ready for them: held for it, and done in it in their order once it is. None of them is meant for the frame.
// What is held for one text is no other's.
let taker = null;

// Keys are held from here on, behind those that are given.
export const hold = (keys = []) => (taker = { keys: [...keys], opens: false, isClosed: false });

// Keys go where they go again, unless they are held for something else by now.
export function stopHolding(held) { if (taker === held) taker = null; }

// What was held, to be done.
export function release(held) {
  stopHolding(held);
  return held.keys;
}

export const insert = words => document.execCommand('insertText', false, words);

const typedBy = { Enter: '\n', Tab: '\t' };
const withoutLast = text => [...new Intl.Segmenter(undefined, { granularity: 'grapheme' }).segment(text)].slice(0, -1).map(s => s.segment).join('');

// What keys type, and words that came without keys.
export const wordsOf = keys => keys.reduce((text, { key = '', words }) =>
  (key === 'Backspace' ? withoutLast(text) : text + (words ?? typedBy[key] ?? (key.length === 1 ? key : ''))), '');

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
  if (!taker || altKey || (key === 'Escape' && !taker.opens) || key === 'Shift' || (control && !isFar(key))) return;
  event.preventDefault();
  event.stopPropagation();
  if (key === 'Escape') {
    // While a text opens, this ends what is meant for it.
    taker.isClosed = true;
    stopHolding(taker);
    return;
  }
  taker.keys.push({ key, shiftKey, control });
}, true);
