// An open text keeps up with what others change in it.
import { address } from '../parts.js';
import { ask } from '../../shared/http.js';
import { look, lookAhead } from './showing.js';
import { send } from './storing.js';
import { shared } from './difference.js';
import { state, watch } from '../state.js';
import { writing } from './opened.js';

watch(['answered'], () => {
  const mine = writing;
  // An answer that brings nothing new comes behind one that does, and is done before it.
  if (mine) mine.kept = Promise.all([mine.kept, keepUp(mine)]).then(() => {});
});

// Shows what others changed of the text meanwhile; what was typed here is stored first, into the paragraphs it was typed in.
async function keepUp(mine) {
  look(mine);
  if (state.revision === mine.known || mine.offered) return;
  mine.known = state.revision;
  if (!await send(mine)) return;
  const answer = await ask('GET', `${address}?handler=Writing&frames=${mine.id}`).catch(() => null);
  if (!answer || writing !== mine || mine.field.value !== mine.stored) return;
  const { text, revision } = JSON.parse(answer.text);
  // Older than what has been stored since, it would take that back.
  if (revision < state.revision) return;
  mine.seen = Math.max(mine.seen, revision);
  if (text !== mine.stored) takeOver(mine, text);
}

// The caret stays between the words it stands between; a step that is taken back or done again has it go where that changes something.
function takeOver(mine, text) {
  const { field, stored } = mine, { before, behind } = shared(stored, text);
  const moved = place => (place <= before ? place : Math.max(before, place >= stored.length - behind ? place + text.length - stored.length : before));
  const { selectionStart, selectionEnd, selectionDirection } = field;
  field.value = mine.stored = text;
  if (mine.followsStep) field.setSelectionRange(text.length - behind, text.length - behind);
  else field.setSelectionRange(moved(selectionStart), moved(selectionEnd), selectionDirection);
  lookAhead(mine);
}
