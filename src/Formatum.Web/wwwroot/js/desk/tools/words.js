// Bringing the words of documents in: dropped on a frame or the page, or picked from the inspector.
import { inspector } from '../parts.js';
import { choose, post, refresh } from '../edits.js';
import { state } from '../state.js';
import { tell } from '../../shared/notices.js';

const endings = ['.txt', '.md', '.markdown', '.html', '.htm', '.docx'];
export const isDocument = file => endings.some(ending => file.name.toLowerCase().endsWith(ending));

// Brings a document into a frame; where none is named, into one of its own about a place on the spread.
export async function bringWords(file, frame, { x, y } = { x: 0, y: 0 }) {
  const form = new FormData();
  form.append('file', file);
  if (frame) form.append('frame', frame);
  form.append('toX', x);
  form.append('toY', y);
  const { done } = await post('Words', form, { seen: state.revision });
  if (!done) return;
  const told = JSON.parse(done.text);
  await refresh();
  await choose([told.frame]);
  tell(told.words);
}

const picker = document.createElement('input');
Object.assign(picker, { type: 'file', accept: endings.join(','), hidden: true, id: 'words-file' });
document.body.append(picker);
inspector.addEventListener('click', event => { if (event.target.closest('#bring-words')) picker.click(); });
picker.addEventListener('change', async () => {
  const [file] = picker.files;
  picker.value = '';
  if (file) await bringWords(file, state.selection[0]);
});
