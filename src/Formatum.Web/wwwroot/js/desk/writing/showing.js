// What is typed, shown as it will print.
import { difference } from './difference.js';
import { waitsFor } from '../away.js';
import { goOn } from './turns.js';
import { writing } from './opened.js';

// So much at once is stored right away instead of being asked about first.
const longest = 4000;

export const command = (mine, stored = mine.stored) =>
  ({
    do: 'write', frames: String(mine.id), caret: mine.caret.focus, switched: mine.next?.switched ?? [],
    ...difference(stored, mine.field.value, mine.next?.at),
  });

// While words are on their way to be stored, the server holds them already or does not: what it cannot follow from the one, it can from the other.
export function lookPast(mine) {
  if (writing === mine && mine.sending !== null && mine.lookedFrom !== mine.sending) look(mine, mine.sending);
}

function caretPlace(mine) {
  const { left, bottom } = (mine.caret.bar.isConnected ? mine.caret.bar : mine.field).getBoundingClientRect();
  return { x: left + 12, y: bottom + 10 };
}

export function look(mine, stored = mine.stored) {
  const asked = command(mine, stored);
  mine.asked.set(asked, mine.typed);
  mine.lookedFrom = stored;
  // Where nobody answers, the words are seen in the field itself, and keys wait for no lines. Each key more does not put that off.
  waitsFor(() => caretPlace(mine));
  mine.blind ??= setTimeout(() => {
    mine.field.classList.add('is-blind');
    mine.isAhead = false;
    goOn(mine);
  }, 900);
  if (asked.text.length > longest) mine.store();
  else mine.asking.ask(asked);
}

// The field holds other words than those that are shown.
export function lookAhead(mine) {
  mine.typed++;
  mine.isAhead = true;
  look(mine);
}

export function show(mine, places, asked) {
  if (writing !== mine || !places) return;
  clearTimeout(mine.blind);
  mine.blind = null;
  mine.field.classList.remove('is-blind');
  mine.isAhead = mine.asked.get(asked) !== mine.typed;
  mine.caret.show(places);
  if (!mine.isAhead) goOn(mine);
  if (places.elsewhereFrame) mine.goOnElsewhere(places);
}
