// An open text is left once what was typed is stored; where it could not be, it stays open.
import { close, writing } from './opened.js';
import { isHeldBack, isHeldForNext } from './ahead.js';
import { onLeaving } from '../edits.js';
import { rest } from './turns.js';
import { send } from './storing.js';
import { state, watch } from '../state.js';

// Whether none is open any more.
export async function leave() {
  const mine = writing;
  if (!mine) return true;
  // What is typed while words are on their way is stored as well.
  do {
    await rest(mine);
    if (!await send(mine)) return false;
  } while (writing === mine && ((isHeldBack() && !isHeldForNext()) || mine.field.value !== mine.stored));
  if (writing === mine) close(mine);
  return true;
}
onLeaving(leave);

window.addEventListener('beforeunload', event => {
  if (writing && writing.field.value !== writing.stored) event.preventDefault();
});

// What else is chosen is shown; what was typed before is stored first.
watch(['selection'], () => { if (writing && !state.selection.includes(writing.id)) leave(); });
