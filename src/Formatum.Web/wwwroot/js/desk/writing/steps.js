// Undo and redo in an open text.
import { editText, send } from './storing.js';
import { edit } from '../edits.js';
import { inTurn } from './turns.js';
import { tell } from '../../shared/notices.js';
import { writing } from './opened.js';

// What was typed, pasted and set in this text is taken back in its order. The field's own way back knows of its words alone.
export const step = (mine, what) => inTurn(mine, () => takeStep(mine, what));

// The buttons mean the open text as well, as far as something was done in it.
document.addEventListener('click', event => {
  const mine = writing, what = event.target.closest('#undo, #redo')?.id;
  if (!mine || mine.isLeft || !what || (mine[what === 'undo' ? 'done' : 'undone'] === 0 && mine.field.value === mine.stored)) return;
  event.stopPropagation();
  mine.field.focus({ preventScroll: true });
  step(mine, what);
}, true);

async function takeStep(mine, what) {
  const from = what === 'undo' ? 'done' : 'undone', to = what === 'undo' ? 'undone' : 'done';
  if (!await send(mine)) return;
  if (mine[from] === 0) {
    tell(what === 'redo' ? 'Nothing is left to do again.'
        : 'All that was done in this text is taken back. What was done before can be, once you leave it (Esc).');
    return;
  }
  mine.followsStep = true;
  try {
    const outcome = await edit({ do: what, frames: String(mine.id), keep: String(mine.id) });
    if (outcome.done) {
      mine[from]--;
      mine[to]++;
      await mine.kept;
    }
  } finally {
    mine.followsStep = false;
  }
}
