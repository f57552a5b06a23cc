// Typing in the page itself. A field out of sight takes what is typed; the server sets it as it will print, and tells where each place in it is.
import './others.js';
import './pointer.js';
import { address, frameElement, inspector } from '../parts.js';
import { ask } from '../../shared/http.js';
import { asker } from '../line.js';
import { Caret } from './caret.js';
import { goOnWith } from './turns.js';
import { hold, insert, release, wordsOf } from './ahead.js';
import { leave } from './leaving.js';
import { listenTo } from './keys.js';
import { look, lookPast, show } from './showing.js';
import { open, writing } from './opened.js';
import { send } from './storing.js';
import { state } from '../state.js';
import { tell } from '../../shared/notices.js';
import { edit, surely, turnTo } from '../edits.js';

// Opens a frame's text, the caret at its end or at a place in it, or where a pointer is. Keys may be held for it already.
export async function write(id, { place = null, pointer = null, held = hold() } = {}) {
  held.opens = true;
  await leave();
  // Shown by an answer that is still to come, the text is not what was seen: the revision is that of the text itself.
  const answer = frameElement(id)
    && await surely(() => ask('GET', `${address}?handler=Writing&frames=${id}`)).catch(problem => tell(problem.message) && null);
  const typed = release(held), { isClosed } = held;
  // Another spread may have come meanwhile.
  if (!answer || !frameElement(id)) {
    if (wordsOf(typed)) tell(`What you typed is not stored: \u201c${wordsOf(typed)}\u201d. Open the text again when the server answers.`, { stays: true });
    return;
  }
  const told = JSON.parse(answer.text);
  if (isClosed && told.text === '') {
    if (wordsOf(typed)) edit({ do: 'write', frames: id, keep: state.selection.join(',') || 'none', text: wordsOf(typed) });
    return;
  }
  const { field } = open(begun(id, told, place)), had = document.activeElement;
  writing.caret = new Caret(field);
  field.focus({ preventScroll: true });
  writing.caret.show(told.places);
  const from = place?.from ?? (pointer && writing.caret.placeAt(pointer)) ?? told.text.length;
  field.setSelectionRange(from, place?.to ?? from);
  listenTo(field, writing);
  look(writing);
  goOnWith(writing, typed);
  if (!isClosed) return;
  const left = leave();
  had?.focus({ preventScroll: true });
  await left;
}

// All that is known of a text while it is typed in.
function begun(id, { label, text, revision }, place) {
  const mine = {
    id, field: fieldOf(label, text),
    // What the server holds, what is on its way to it, and the revision that the text was seen at.
    stored: text, sending: null, sent: Promise.resolve(true), seen: revision, known: state.revision,
    // What was typed that is not shown yet.
    typed: 0, isAhead: false, asked: new WeakMap(),
    // How much was done in it, to be taken back, and taken back, to be done again.
    held: null, isLeft: false, done: place?.done ?? 0, undone: place?.undone ?? 0,
    store: () => send(mine),
    goOnElsewhere: places => goToSpread(mine, places),
  };
  mine.asking = asker((shown, asked) => show(mine, shown.writing, asked), () => lookPast(mine));
  return mine;
}

function fieldOf(label, text) {
  const field = document.createElement('textarea');
  field.className = 'writing';
  field.value = text;
  field.wrap = 'off';
  field.spellcheck = false;
  field.setAttribute('aria-label', `Text of ${label}`);
  return field;
}

// The caret has left for a frame of another spread: typing goes on there, and so do keys that come on the way.
async function goToSpread(mine, { elsewhereSpread, elsewhereFrame }) {
  if (mine.isGoing) return;
  mine.isGoing = true;
  const held = hold();
  if (!await leave()) {
    mine.isGoing = false;
    goOnWith(mine, release(held));
    return;
  }
  const { done, undone, field: { selectionStart: from, selectionEnd: to } } = mine;
  await turnTo({ spread: elsewhereSpread, frames: elsewhereFrame });
  await write(elsewhereFrame, { held, place: { from, to, done, undone } });
}

// A field goes where the caret stands, or behind all of a text that is not open.
inspector.addEventListener('change', async event => {
  if (event.target.id !== 'insert-field' || !event.target.value) return;
  const written = event.target.value;
  event.target.value = '';
  if (!writing) await write(state.selection[0]);
  writing?.field.focus({ preventScroll: true });
  if (writing) insert(written);
});
inspector.addEventListener('click', event => { if (event.target.closest('#write')) write(state.selection[0]); });
