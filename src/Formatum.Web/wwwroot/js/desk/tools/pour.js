// Pouring the tray, or a table into named frames: a proposal with everything worth knowing first, then taken as one step.
import { frameElement, address } from '../parts.js';
import { loadAnew, post } from '../edits.js';
import { ask } from '../../shared/http.js';
import { state } from '../state.js';
import { tell } from '../../shared/notices.js';

const dialog = document.getElementById('pour-dialog'), body = document.getElementById('pour-body');
const rowsDialog = document.getElementById('rows-dialog'), rowsBody = document.getElementById('rows-body');
const picker = document.getElementById('rows-file');

// The revision that a proposal was made from.
let seen = 0;

export async function openPour() {
  // What is chosen is meant where there is something in it to fill.
  const frames = state.selection.some(id => frameElement(id)?.classList.contains('frame-empty')) ? state.selection.join(',') : '';
  seen = state.revision;
  const answer = await ask('GET', `${address}?handler=Pour&frames=${frames}&into=${frames ? 'Chosen' : 'Publication'}`)
      .catch(problem => tell(problem.message) && null);
  if (!answer) return;
  window.htmx.swap(body, answer.text, { swapStyle: 'innerHTML' });
  dialog.showModal();
}

// Takes a proposal; where it is refused, it stays open with what was chosen in it.
async function take(button, handler, form, told) {
  button.disabled = true;
  const { done, problem } = await post(handler, new FormData(form), { seen });
  button.disabled = false;
  if (problem) return;
  told.close();
  loadAnew(JSON.parse(done.text).words);
}

dialog.addEventListener('click', event => {
  if (event.target.closest('#leave-pour')) dialog.close();
  if (event.target.closest('#take-pour')) take(event.target, 'Pour', document.getElementById('pour-form'), dialog);
});

document.getElementById('tray').addEventListener('click', event => { if (event.target.closest('#pour-rows')) picker.click(); });
picker.addEventListener('change', async () => {
  const form = new FormData();
  form.append('file', picker.files[0]);
  picker.value = '';
  seen = state.revision;
  const { done } = await post('Rows', form);
  if (!done) return;
  window.htmx.swap(rowsBody, done.text, { swapStyle: 'innerHTML' });
  rowsDialog.showModal();
});
rowsDialog.addEventListener('submit', event => event.preventDefault());
rowsDialog.addEventListener('click', event => {
  if (event.target.closest('#leave-rows')) rowsDialog.close();
  if (event.target.closest('#take-rows')) take(event.target, 'TakeRows', document.getElementById('rows-form'), rowsDialog);
});
