// Images: which are ticked, which one is looked at, and proposals before anything is taken over.
import { ask } from './shared/http.js';
import { isTyping } from './shared/pointer.js';
import { listen } from './shared/events.js';
import { onArrived } from './shared/intake.js';
import { tell } from './shared/notices.js';

const images = document.getElementById('images');
const list = document.getElementById('image-list');
const card = document.getElementById('image-card');
const query = document.getElementById('image-query');
const dialog = document.getElementById('update-dialog');
const address = `/publications/${images.dataset.publication}/images`;

const ticks = () => [...list.querySelectorAll('.tick')];
const ticked = () => ticks().filter(tick => tick.checked).map(tick => tick.value);
const shown = () => card.querySelector('[data-image]')?.dataset.image;

// The revision of the list that is shown: what is done is done in the knowledge of that one.
const seen = () => Number(list.querySelector('[data-revision]').dataset.revision);

function showTicks() {
  const none = ticked().length === 0;
  for (const id of ['to-tray', 'unlink']) document.getElementById(id).disabled = none;
  for (const tick of ticks()) tick.closest('[data-row]').classList.toggle('is-ticked', tick.checked);
}

const swap = (target, text) => window.htmx.swap(target, text, { swapStyle: 'innerHTML' });

// Fetches a piece of the page; what fails is told, and what stands there stays.
async function fetchInto(target, what) {
  const answer = await ask('GET', `${address}?${what}`).catch(problem => tell(problem.message) && null);
  if (answer) swap(target, answer.text);
  return answer !== null;
}

const openCard = image => fetchInto(card, `handler=Card&image=${image}`);

// One refresh at a time, and the newest at the end.
let refreshing = null, again = false;
async function refresh() {
  if (refreshing) {
    again = true;
    return;
  }
  refreshing = (async () => {
    try {
      do {
        again = false;
        const kept = new Set(ticked());
        await fetchInto(list, `handler=List&${new URLSearchParams(new FormData(query))}`);
        for (const tick of ticks()) tick.checked = kept.has(tick.value);
        showTicks();
        if (shown()) await openCard(shown());
      } while (again);
    } finally {
      refreshing = null;
    }
  })();
}

// Steps go one after the other; what one refuses is told, and the list then shows how things stand.
let steps = Promise.resolve();
function send(values, handler = '') {
  const began = seen();
  steps = steps.then(async () => {
    const form = new FormData();
    for (const [name, value] of Object.entries({ seen: began, ...values })) form.append(name, value);
    try {
      await ask('POST', `${address}${handler}`, { form });
      return true;
    } catch (problem) {
      tell(problem.message);
      refresh();
      return false;
    }
  });
  return steps;
}

let lastTick = null;
function tickTo(tick, event) {
  // With Shift, all between the last one and this one.
  const all = ticks(), from = all.indexOf(lastTick), to = all.indexOf(tick);
  if (event.shiftKey && from >= 0) all.slice(Math.min(from, to), Math.max(from, to) + 1).forEach(t => { t.checked = tick.checked; });
  lastTick = tick;
  showTicks();
}

list.addEventListener('click', event => {
  const tick = event.target.closest('.tick'), opened = event.target.closest('[data-card]');
  if (tick) tickTo(tick, event);
  if (opened) openCard(opened.dataset.card);
  switch (event.target.closest('[id]')?.id) {
    case 'tick-all':
      for (const t of ticks()) t.checked = event.target.checked;
      showTicks();
      break;
    case 'to-tray': putInTray(ticked()); break;
    case 'unlink': send({ do: 'unlink', images: ticked().join(',') }); break;
    case 'update-all': propose('Update', {}); break;
    case 'find-missing': askFolder(''); break;
    default:
  }
});

async function putInTray(which) {
  if (await send({ do: 'tray-add', images: which.join(',') })) tell(`${which.length} in the tray now.`);
}

async function propose(handler, values) {
  if (await fetchInto(document.getElementById('update-body'), `handler=${handler}&${new URLSearchParams(values)}`) && !dialog.open) dialog.showModal();
}

function askFolder(wanted) {
  const words = document.createElement('template');
  words.innerHTML = `<form id="find-form" class="update-head"><h2>Find pictures in a folder</h2>
    <p>It and the folders in it are searched, by content first, then by name. Nothing changes before you say so.</p>
    <label class="form-label" for="find-folder">Folder on the server</label>
    <input id="find-folder" class="form-control form-control-sm" autocomplete="off" spellcheck="false">
    <div class="card-actions"><button class="btn btn-small btn-primary">Look there</button><button
      type="button" class="btn btn-small btn-quiet" id="leave-update">Not now</button></div></form>`;
  document.getElementById('update-body').replaceChildren(words.content);
  document.getElementById('find-folder').value = document.getElementById('folder')?.value ?? '';
  document.getElementById('find-form').dataset.images = wanted;
  dialog.showModal();
}

dialog.addEventListener('submit', event => {
  event.preventDefault();
  propose('Relink', { folder: document.getElementById('find-folder').value, images: event.target.dataset.images });
});
dialog.addEventListener('click', async event => {
  if (event.target.closest('#leave-update')) dialog.close();
  const take = event.target.closest('#take-update');
  if (!take) return;
  take.disabled = true;
  await send(JSON.parse(take.dataset.values), '?handler=Update');
  dialog.close();
  refresh();
});

card.addEventListener('click', event => {
  switch (event.target.closest('[data-act]')?.dataset.act) {
    case 'update': propose('Update', { images: shown() }); break;
    case 'find': askFolder(shown()); break;
    case 'tray': putInTray([shown()]); break;
    case 'replace': replace(event.target.closest('[data-act]').dataset.lies); break;
    default:
  }
});

// A file that is sent is kept here: one that was linked where it lies is then no longer followed there.
function replace(lies) {
  if (!lies) pickReplacement();
  else tell(`This picture is linked where it lies, ${lies}. A file put in its place is kept by Formatum, and changes there are no longer seen.`,
      { stays: true, actions: [['Choose a file all the same', pickReplacement]] });
}

function pickReplacement() {
  const image = shown();
  const picker = Object.assign(document.createElement('input'), { type: 'file', id: 'replacement', hidden: true });
  picker.addEventListener('change', async () => {
    await send({ image, file: picker.files[0] }, '?handler=Replace');
    picker.remove();
  });
  card.append(picker);
  picker.click();
}

document.getElementById('history').addEventListener('click', event => {
  const step = event.target.closest('[data-do]')?.dataset.do;
  if (step) send({ do: step });
});
document.addEventListener('keydown', event => {
  if (isTyping(event.target) || dialog.open || !(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return;
  event.preventDefault();
  send({ do: event.shiftKey ? 'redo' : 'undo' });
});

query.addEventListener('submit', event => event.preventDefault());
// What is asked for goes the way of every refresh: one that was under way before must not come after it.
let typing = 0;
query.addEventListener('change', refresh);
query.addEventListener('input', () => {
  clearTimeout(typing);
  typing = setTimeout(refresh, 200);
});
list.addEventListener('htmx:afterSettle', showTicks);
onArrived(refresh);
listen(images.dataset.publication, { changed: revision => { if (revision > seen()) refresh(); }, links: refresh });
images.dataset.ready = 'yes';
