// Check: which finding is looked at, stepping through with keys, and remedies seen before they are taken.
import { actOn, revision } from './shared/acting.js';
import { ask, valuesOf } from './shared/http.js';
import { isTyping } from './shared/pointer.js';
import { listen } from './shared/events.js';
import { tell } from './shared/notices.js';

const screen = document.getElementById('check');
const list = document.getElementById('check-list');
const card = document.getElementById('check-card');
const query = document.getElementById('check-query');
const dialog = document.getElementById('profile-dialog');
const address = `/publications/${screen.dataset.publication}/check`;

let looking = false;
const { act } = actOn(address, screen.dataset.publication, () => looking || dialog.open,
  () => tell('Another window changed the publication. What you look at here is shown against it once you apply or discard.'));

const rows = () => [...list.querySelectorAll('.check-row')];
const current = () => list.querySelector('.check-row[aria-current]');
const swap = (target, text) => window.htmx.swap(target, text, { swapStyle: 'innerHTML' });

// The query that is typed, with the finding that is looked at.
function search(finding) {
  const typed = new URLSearchParams(new FormData(query));
  for (const [name, value] of [...typed]) if (!value) typed.delete(name);
  if (finding) typed.set('finding', finding);
  return `?${typed}`;
}

async function fetchInto(target, what) {
  const answer = await ask('GET', `${address}${what}`).catch(problem => tell(problem.message) && null);
  if (answer) swap(target, answer.text);
  return answer !== null;
}

// The newest choice wins.
let asked = 0;
async function show(row) {
  const mine = ++asked;
  for (const other of rows()) other.toggleAttribute('aria-current', false);
  row.setAttribute('aria-current', 'true');
  row.scrollIntoView({ block: 'nearest' });
  const finding = row.dataset.finding;
  window.history.replaceState(null, '', search(finding));
  const answer = await ask('GET', `${address}${search(finding)}&handler=Finding`).catch(problem => tell(problem.message) && null);
  if (!answer || mine !== asked) return;
  looking = false;
  swap(card, answer.text);
}

// What is done leads on to the finding behind the one that is mended.
function next() {
  const all = rows(), at = all.indexOf(current());
  return (all[at + 1] ?? all[at - 1])?.dataset.finding;
}
const send = (what, values, finding = next()) => {
  looking = false;
  return act(what, valuesOf({ seen: revision(), query: search(finding), ...values }));
};

function step(way) {
  const all = rows(), at = all.indexOf(current());
  const to = all[at < 0 ? 0 : Math.min(Math.max(at + way, 0), all.length - 1)];
  if (to) show(to);
}

async function tryRemedy(what) {
  looking = await fetchInto(card, `?handler=Remedy&${new URLSearchParams(what)}`);
  if (looking) document.getElementById('apply')?.focus();
}

function mend(button) {
  const what = { finding: button.dataset.mend, remedy: button.dataset.remedy };
  if (button.dataset.file === 'Find') {
    const folder = document.getElementById('find-folder');
    if (!folder.reportValidity()) return;
    what.folder = folder.value;
  }
  tryRemedy(what);
}

list.addEventListener('click', event => {
  const row = event.target.closest('.check-row'), all = event.target.closest('[data-all]');
  if (all) tryRemedy({ kind: all.dataset.all, remedy: all.dataset.remedy });
  if (!row || event.ctrlKey || event.metaKey || event.shiftKey) return;
  event.preventDefault();
  show(row);
});

card.addEventListener('click', event => {
  const button = event.target.closest('button');
  if (button?.dataset.mend) mend(button);
  else if (button?.dataset.takeUp) send('Unaccept', { ids: button.dataset.takeUp });
  else if (button?.id === 'discard' && current()) show(current());
  else if (button?.id === 'apply') {
    button.disabled = true;
    send('Mend', JSON.parse(button.dataset.values));
  }
});
card.addEventListener('submit', event => {
  event.preventDefault();
  const { target } = event;
  if (target.id === 'accept-form') send('Accept', { ids: target.dataset.accept, reason: target.elements.reason.value });
  else card.querySelector('[data-file="Find"]').click();
});

// The newest question wins, and the finding that was looked at stays where it is still among them.
let questions = 0, answered = '';
async function question() {
  const mine = ++questions, kept = current()?.dataset.finding;
  const answer = await ask('GET', `${address}${search(kept)}&handler=List`).catch(problem => tell(problem.message) && null);
  if (!answer || mine !== questions || answer.text === answered) return;
  answered = answer.text;
  swap(list, answered);
  if (current()) show(current());
  else card.replaceChildren();
}
// Pages count once they are typed to their end: on the way there they name none.
for (const kind of ['input', 'change']) query.addEventListener(kind, event => { if (kind === 'change' || event.target.name !== 'pages') question(); });
query.addEventListener('submit', event => event.preventDefault());

document.getElementById('profile').addEventListener('change', event => send('Profile', { profile: event.target.value }, current()?.dataset.finding));
document.getElementById('open-profile').addEventListener('click', () => dialog.showModal());
dialog.addEventListener('click', event => {
  if (event.target.closest('#leave-profile')) dialog.close();
  if (event.target.closest('#remove-profile')) send('RemoveProfile', {}, null);
});
dialog.addEventListener('submit', event => {
  event.preventDefault();
  const values = new FormData(event.target);
  values.append('seen', revision());
  values.append('query', search(current()?.dataset.finding));
  act('KeepProfile', values);
});

document.addEventListener('keydown', event => {
  if (isTyping(event.target) || event.ctrlKey || event.metaKey || event.altKey || dialog.open) return;
  const run = {
    ArrowDown: () => step(1),
    ArrowUp: () => step(-1),
    Escape: () => looking && current() && show(current()),
    Enter: () => !event.target.closest('button, a:not(.check-row), select') && document.getElementById('go-there')?.click(),
    m: () => card.querySelector('[data-mend]')?.click(),
    a: () => document.getElementById('accept-reason')?.focus(),
  }[event.key];
  if (!run || (event.key.startsWith('Arrow') && event.target.closest('select, input'))) return;
  event.preventDefault();
  run();
});

// Files change without the publication doing so.
const anew = () => { if (!looking && !dialog.open) question(); };
listen(screen.dataset.publication, { links: anew, found: anew });
current()?.scrollIntoView({ block: 'nearest' });
screen.dataset.ready = 'yes';
