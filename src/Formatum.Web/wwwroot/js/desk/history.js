// The history: all that was done and by whom. A step is gone back to, or taken back alone; what that takes from others is told first.
import { address } from './parts.js';
import { ask } from '../shared/http.js';
import { choose, edit } from './edits.js';
import { tell } from '../shared/notices.js';

const card = document.getElementById('history-card'), list = document.getElementById('history-list');
let asked = null;

card.addEventListener('toggle', event => { if (event.newState === 'open') load(); });

async function load() {
  asked = null;
  const answer = await ask('GET', `${address}?handler=History`).catch(problem => tell(problem.message) && null);
  if (answer) list.innerHTML = answer.text;
}

list.addEventListener('click', event => {
  const { sequence, takeBack } = event.target.closest('button')?.dataset ?? {};
  if (takeBack) {
    card.hidePopover();
    edit({ do: 'take-back', count: takeBack });
  }
  if (sequence) goTo(sequence);
});

async function goTo(sequence) {
  // Asked a second time, that others' steps go too is wanted.
  const outcome = await ask('GET', `${address}?handler=GoingBack&to=${sequence}`).catch(problem => ({ problem }));
  const words = outcome.problem ? outcome.problem.message : outcome.text;
  if (words && asked !== sequence) {
    const told = document.getElementById('history-sure');
    told.textContent = `${words} Click again to go back all the same.`;
    told.hidden = false;
    told.scrollIntoView({ block: 'nearest' });
    asked = sequence;
    return;
  }
  card.hidePopover();
  const { done } = await edit({ do: 'go-to', count: sequence, sure: true });
  if (done) choose([]);
}

list.addEventListener('submit', async event => {
  event.preventDefault();
  const name = new FormData(event.target).get('name');
  const kept = await ask('POST', `/maker?name=${encodeURIComponent(name)}`).catch(problem => tell(problem.message) && null);
  if (kept) tell(`What you do from now on is marked \u201c${name.trim()}\u201d.`);
});
