// What changes an open text by the server, and keys that wait for its lines, are done one after the other, in the order they came in.
import { goFar, hold, insert, release, stopHolding, wordsOf } from './ahead.js';
import { canvas } from '../parts.js';
import { writing } from './opened.js';

export const byLines = new Set(['ArrowUp', 'ArrowDown', 'Home', 'End', 'PageUp', 'PageDown']);

// Does what changes the text by the server; keys that come meanwhile, and what else does, act on what it leads to.
export function inTurn(mine, run) {
  if (mine.held) mine.held.keys.push({ run });
  else begin(mine, run);
}

// Keys that come for a text that is left are the Desk's.
function holdIn(mine, keys) {
  mine.held = hold(keys);
  if (mine.isLeft) stopHolding(mine.held);
}

function takeHeld(mine) {
  const { held } = mine;
  mine.held = null;
  return release(held);
}

function begin(mine, run, behind = []) {
  holdIn(mine, behind);
  mine.turn = run().catch(problem => console.error(problem)).then(() => {
    mine.turn = null;
    const keys = takeHeld(mine);
    if (writing === mine) goOnWith(mine, keys);
  });
}

export function moveByLine({ key, shiftKey }, mine) {
  if (mine.isAhead) waitWith(mine, [{ key, shiftKey }]);
  else {
    const place = mine.caret.goesTo(key);
    if (place !== null) mine.caret.put(place, { stretch: shiftKey });
  }
}

// Where a line goes from is known once what was typed is shown: a key that comes before waits for that, and what follows it with it.
function waitWith(mine, keys) {
  holdIn(mine, keys);
  mine.goesOn = true;
}

// Goes on with what waited for lines to be shown.
export function goOn(mine) {
  if (!mine.goesOn) return;
  mine.goesOn = false;
  goOnWith(mine, takeHeld(mine));
  mine.rested?.();
}

// Until nothing is held back.
export async function rest(mine) {
  while (mine.goesOn || mine.turn) await (mine.turn ?? new Promise(resolve => { mine.rested = resolve; }));
}

// Does something in the field of a text, which has the keys for so long.
export function inField(mine, run) {
  const had = document.activeElement;
  canvas.classList.add('is-writing');
  mine.field.focus({ preventScroll: true });
  run();
  if (!mine.isLeft) return;
  had?.focus({ preventScroll: true });
  canvas.classList.remove('is-writing');
}

// Does what keys that were held would have done.
export const goOnWith = (mine, keys) => { if (keys.length > 0) inField(mine, () => doKeys(mine, keys)); };

function doKeys(mine, keys) {
  for (let i = 0; i < keys.length; i++) {
    const { key, shiftKey, control, run } = keys[i];
    if (run) {
      begin(mine, run, keys.slice(i + 1));
      return;
    }
    if (control) {
      goFar(keys[i]);
      continue;
    }
    if (byLines.has(key) && mine.isAhead) {
      waitWith(mine, keys.slice(i));
      return;
    }
    if (byLines.has(key)) moveByLine(keys[i], mine);
    else if (key === 'ArrowLeft' || key === 'ArrowRight') mine.caret.step(key === 'ArrowLeft' ? -1 : 1, { stretch: shiftKey });
    else if (key === 'Backspace') document.execCommand('delete');
    else if (key === 'Delete') document.execCommand('forwardDelete');
    else if (key === 'Tab') insert('\t');
    else if (key === 'Enter' && shiftKey) insert('\u2028');
    else {
      const words = wordsOf([keys[i]]);
      if (words) insert(words);
    }
  }
}
