// Finding words in all texts, and putting others in their place: counted and shown first, then done as one step.
import { address, inspector } from '../parts.js';
import { ask } from '../../shared/http.js';
import { loadAnew, post } from '../edits.js';
import { state } from '../state.js';
import { tell } from '../../shared/notices.js';

const dialog = document.getElementById('find-dialog'), body = document.getElementById('find-body');
let seen = 0;

export async function openFind() {
  seen = state.revision;
  const answer = await ask('GET', `${address}?handler=Find&card=true&chosen=${state.selection.join(',')}`).catch(problem => tell(problem.message) && null);
  if (!answer) return;
  window.htmx.swap(body, answer.text, { swapStyle: 'innerHTML' });
  dialog.showModal();
  document.getElementById('find-words').focus();
}
inspector.addEventListener('click', event => { if (event.target.closest('#find-open')) openFind(); });

dialog.addEventListener('submit', event => event.preventDefault());
dialog.addEventListener('click', async event => {
  if (event.target.closest('#leave-find')) dialog.close();
  if (!event.target.closest('#replace-all')) return;
  const { done, problem } = await post('Replace', new FormData(document.getElementById('find-words-form')), { seen });
  if (problem) return;
  dialog.close();
  loadAnew(JSON.parse(done.text).words);
});
