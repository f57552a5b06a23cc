// What changes an open text by the server, and keys that wait for its lines, are done one after the other, in the order they came in.
import { goFar, holdBack, holdToo, insert, isHeldBack, letGo, wordsOf } from './ahead.js';
import { writing } from './opened.js';

export const byLines = new Set(['ArrowUp', 'ArrowDown', 'Home', 'End', 'PageUp', 'PageDown']);

// Does what changes the text by the server; keys that come meanwhile, and what else does, act on what it leads to.
export function inTurn(mine, run) {
  if (isHeldBack()) holdToo({ run });
  else begin(mine, run);
}

function begin(mine, run, behind = []) {
  holdBack(behind);
  mine.turn = run().catch(problem => console.error(problem)).then(() => {
    mine.turn = null;
    const keys = letGo();
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
  holdBack(keys);
  mine.goesOn = true;
}

// Goes on with what waited for lines to be shown.
export function goOn(mine) {
  if (!mine.goesOn) return;
  mine.goesOn = false;
  goOnWith(mine, letGo());
  mine.rested?.();
}

// Until nothing is held back.
export async function rest(mine) {
  while (mine.goesOn || mine.turn) await (mine.turn ?? new Promise(resolve => { mine.rested = resolve; }));
}

// Does what keys that were held back would have done.
export function goOnWith(mine, keys) {
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
