// An open text is left once what was typed is stored; where it could not be, it stays open.
import { close, writing } from './opened.js';
import { canvas, frameElement } from '../parts.js';
import { change, state, watch } from '../state.js';
import { onLeaving } from '../edits.js';
import { stopHolding } from './ahead.js';
import { rest } from './turns.js';
import { send } from './storing.js';

// Whether none is open any more.
export async function leave() {
  const mine = writing;
  if (!mine) return true;
  letGoOf(mine);
  do {
    await rest(mine);
    if (!await send(mine)) {
      if (writing === mine && mine.isLeft) goBackTo(mine);
      return false;
    }
  } while (writing === mine && mine.field.value !== mine.stored);
  if (writing === mine) close(mine);
  return true;
}

// Keys that follow are the Desk's, while what was typed is still on its way.
function letGoOf(mine) {
  mine.isLeft = true;
  stopHolding(mine.held);
  canvas.classList.remove('is-writing');
  change({ writing: null });
  if (document.activeElement === mine.field) (frameElement(mine.id) ?? canvas).focus({ preventScroll: true });
}

function goBackTo(mine) {
  mine.isLeft = false;
  canvas.classList.add('is-writing');
  change({ writing: mine.id });
  const { activeElement } = document;
  if (activeElement === document.body || canvas.contains(activeElement)) mine.field.focus({ preventScroll: true });
}
onLeaving(leave);

window.addEventListener('beforeunload', event => {
  if (writing && writing.field.value !== writing.stored) event.preventDefault();
});

// What else is chosen is shown; what was typed before is stored first.
watch(['selection'], () => { if (writing && !state.selection.includes(writing.id)) leave(); });
