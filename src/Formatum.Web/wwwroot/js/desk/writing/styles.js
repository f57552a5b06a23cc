// Styles and settings of what is selected in an open text, or of all of a chosen one.
import { change } from '../state.js';
import { editText, send } from './storing.js';
import { inspector } from '../parts.js';
import { sending } from '../typed.js';
import { tell } from '../../shared/notices.js';
import { writing } from './opened.js';

// What is asked for goes to what is selected while text is typed, to the paragraph the caret stands in where nothing is, and else to all.
async function style(asked) {
  const mine = writing, place = mine && { from: mine.field.selectionStart, to: mine.field.selectionEnd };
  if (mine && !await send(mine)) return;
  if (mine) change({ range: `${place.from}-${place.to}` });
  await editText(mine, { ...asked, ...(mine && { frames: String(mine.id), keep: mine.id, ...place }) });
  if (writing !== mine || !mine || mine.isLeft) return;
  mine.field.focus({ preventScroll: true });
}
const set = (setting, value) => style({ do: 'text-style', setting, value });

inspector.addEventListener('change', event => {
  const field = event.target, name = field.dataset.text;
  if (field.dataset.putStyle) style({ do: 'put-style', kind: field.dataset.putStyle, style: field.value });
  if (!name || name === 'yes') return;
  sending(field);
  set(name, field.type === 'checkbox' ? String(field.checked) : field.value);
});
inspector.addEventListener('click', event => {
  const align = event.target.closest('[data-text-align]'), clear = event.target.closest('[data-clear-text]');
  if (align) set('alignment', align.dataset.textAlign);
  if (clear) set(clear.dataset.clearText, null);
});
inspector.addEventListener('submit', event => {
  if (event.target.id !== 'make-style') return;
  const form = new FormData(event.target);
  style({ do: 'make-style', name: form.get('name'), kind: form.get('kind'), settings: form.getAll('settings') });
});

// With words selected, theirs; with the caret alone, of what is typed next.
export async function switchFace(face, mine) {
  if (mine.field.selectionStart !== mine.field.selectionEnd) {
    await set(face, 'switch');
    return;
  }
  // What was typed so far is stored as it was switched then.
  if (mine.field.value !== mine.stored && !await send(mine)) return;
  const now = mine.next?.switched ?? [], at = mine.field.selectionStart;
  const switched = now.includes(face) ? now.filter(name => name !== face) : [...now, face];
  mine.next = switched.length > 0 ? { at, switched } : null;
  tell(mine.next ? `What you type next here: ${switched.join(', ')} switched.` : 'What you type next is as before.');
}

// The list of styles, by keys: chosen there, it is put on, and the keys go back to the text.
export function openStyles(ofCharacters) {
  const list = document.getElementById(ofCharacters ? 'text-character-style' : 'text-style');
  if (!list) return;
  list.focus();
  list.showPicker?.();
}

inspector.addEventListener('keydown', event => { if (event.key === 'Escape' && writing && !writing.isLeft) writing.field.focus({ preventScroll: true }); });
