// Brings picture files in, with progress, and tells of each that did not come in why. The report waits until somebody has read it.
import { answersAgain, ask, headers, Problem, problemOf, unreachable } from './http.js';

const publication = document.querySelector('[data-publication]').dataset.publication;
const imports = `/api/publications/${publication}/imports`;
const target = document.getElementById('pictures') ?? document.querySelector('.image-main');
const panel = document.getElementById('intake');
const progress = document.getElementById('intake-progress');
const words = document.getElementById('intake-words');
const problems = document.getElementById('intake-problems');
const cancel = document.getElementById('intake-cancel');
const close = document.getElementById('intake-close');
const input = document.getElementById('files');
const shortRest = 4000, lookEvery = 400;

let job = null, sending = null;
const arrivedListeners = new Set(), pickedListeners = new Set();

// Calls when pictures have come in.
export const onArrived = listener => arrivedListeners.add(listener);

// Calls with the images of files that were picked in the page, rather than dropped somewhere.
export const onPicked = listener => pickedListeners.add(listener);

const ended = status => status.state === 'done' || status.state === 'stopped';

// ---- What is seen of a job ---------------------------------------------------------------------------------------------------------------

function begin(text) {
  panel.hidden = false;
  close.hidden = true;
  problems.replaceChildren();
  progress.hidden = false;
  progress.removeAttribute('value');
  words.textContent = text;
}

function line(name, text) {
  const item = document.createElement('li'), strong = document.createElement('strong');
  strong.textContent = name;
  item.append(strong, ` ${text}`);
  return item;
}

function wordsOf(status, refused) {
  const came = status.total - refused, same = status.same ? ` ${status.same} ${status.same === 1 ? 'was' : 'were'} there already.` : '';
  return `${came} of ${status.total} came in.${same}${refused ? ` ${refused} did not:` : ''}${status.state === 'stopped' ? ' It was stopped.' : ''}`;
}

function timeLeft({ state, secondsLeft }) {
  if (secondsLeft === null || state === 'receiving') return '';
  return secondsLeft < 90 ? `, about ${Math.max(1, Math.round(secondsLeft))} s left` : `, about ${Math.round(secondsLeft / 60)} min left`;
}

function show(status) {
  panel.hidden = false;
  const refused = status.report.filter(r => r.error), same = status.report.filter(r => r.sameAs && r.sameAs !== r.name);
  problems.replaceChildren(...refused.map(r => line(r.name, r.error)), ...same.map(r => line(r.name, `is the same picture as ${r.sameAs}.`)));
  progress.hidden = cancel.hidden = ended(status);
  close.hidden = !ended(status);
  if (ended(status)) {
    words.textContent = wordsOf(status, refused.length);
    return;
  }
  progress.value = status.total ? status.done / status.total : 0;
  const rest = status.state === 'receiving' ? ', more are arriving' : timeLeft(status);
  words.textContent = `${status.resumed ? 'Going on: ' : ''}${status.done} of ${status.total} read${rest}`;
}

function fail(text) {
  progress.hidden = cancel.hidden = true;
  words.textContent = text;
  close.hidden = false;
}

// Looks at a job until it has ended; also one that was begun before this page was opened, and across a restart of the server.
async function follow(id) {
  job = id;
  let last = null;
  while (job === id) {
    try {
      last = JSON.parse((await ask('GET', `${imports}/${id}`)).text);
    } catch (problem) {
      if (!problem.isGone) break;
      words.textContent = 'The server does not answer. It goes on with these pictures when it is back.';
      await answersAgain();
      continue;
    }
    show(last);
    if (ended(last)) break;
    await new Promise(resolve => { setTimeout(resolve, lookEvery); });
  }
  if (job !== id) return [];
  job = null;
  arrivedListeners.forEach(listener => listener());
  if (last && ended(last)) closeLater(last);
  return last?.report ?? [];
}

let shown = null;
function closeLater(status) {
  shown = status.id;
  if (!problems.children.length) setTimeout(() => { if (shown === status.id && !job && !sending) closeReport(); }, shortRest);
}

function closeReport() {
  panel.hidden = true;
  if (shown) ask('POST', `${imports}/${shown}/read`).catch(() => {});
  shown = null;
}

// ---- Sending -------------------------------------------------------------------------------------------------------------------------------

// XMLHttpRequest, since fetch tells no progress of what is sent. The answer comes when all has been sent; what arrived is read meanwhile.
// Gives the report: what came in, and what did not.
export function bringIn(files) {
  const form = new FormData();
  // Told first, so that the server knows what is missing should the page be left half way.
  form.append('names', JSON.stringify(files.map(file => file.name)));
  for (const file of files) form.append('files', file);
  begin(`Sending ${files.length} ${files.length === 1 ? 'file' : 'files'}\u2026`);
  cancel.hidden = false;
  return new Promise(resolve => {
    const request = sending = new XMLHttpRequest();
    request.open('POST', imports);
    for (const [name, value] of Object.entries(headers())) request.setRequestHeader(name, value);
    request.upload.addEventListener('progress', event => { if (event.lengthComputable) progress.value = event.loaded / event.total; });
    request.addEventListener('load', () => {
      sending = null;
      const answer = problemOf(request.responseText);
      if (request.status === 202) resolve(follow(answer.id));
      else {
        fail(new Problem(request.status, answer).message);
        resolve([]);
      }
    });
    for (const end of ['error', 'abort']) {
      request.addEventListener(end, () => {
        sending = null;
        if (end === 'error') fail(unreachable);
        else findUnderWay();
        resolve([]);
      });
    }
    request.send(form);
  });
}

// Leaving now would leave the rest behind.
window.addEventListener('beforeunload', event => { if (sending) event.preventDefault(); });

cancel.addEventListener('click', () => {
  sending?.abort();
  sending = null;
  if (job) ask('DELETE', `${imports}/${job}`).catch(problem => fail(problem.message));
});
close.addEventListener('click', closeReport);

// What is under way is followed; what ended meanwhile, on this screen or another, is told.
async function findUnderWay() {
  const answer = await ask('GET', imports).catch(() => null);
  const all = answer ? JSON.parse(answer.text) : [], open = all.filter(status => !ended(status)).at(-1),
      unread = all.filter(status => ended(status) && !status.read).at(-1);
  if (open) follow(open.id);
  else if (unread) {
    show(unread);
    closeLater(unread);
  } else if (close.hidden) panel.hidden = true;
}

// A dropped folder gives its files, and those of the folders in it; those whose names begin with a dot are the system's own.
export async function filesOf(transfer) {
  const found = [];
  const read = async entry => {
    if (entry.name.startsWith('.')) return;
    if (entry.isFile) {
      const file = await new Promise((resolve, reject) => { entry.file(resolve, reject); }).catch(() => null);
      if (file) found.push(file);
      return;
    }
    const reader = entry.createReader();
    for (;;) {
      const some = await new Promise((resolve, reject) => { reader.readEntries(resolve, reject); }).catch(() => []);
      if (some.length === 0) return;
      for (const inner of some) await read(inner);
    }
  };
  const entries = [...transfer.items].map(item => item.webkitGetAsEntry?.()).filter(Boolean);
  if (entries.length === 0) return [...transfer.files];
  for (const entry of entries) await read(entry);
  return found;
}

document.getElementById('bring-in').addEventListener('click', () => input.click());
input.addEventListener('change', async () => {
  const files = [...input.files];
  input.value = '';
  if (files.length === 0) return;
  const arrived = [...new Set((await bringIn(files)).filter(r => r.id).map(r => r.id))];
  if (arrived.length > 0) pickedListeners.forEach(listener => listener(arrived));
});

target.addEventListener('dragover', event => {
  if (!event.dataTransfer.types.includes('Files')) return;
  event.preventDefault();
  target.classList.add('drop-here');
});
target.addEventListener('dragleave', () => target.classList.remove('drop-here'));
target.addEventListener('drop', async event => {
  event.preventDefault();
  target.classList.remove('drop-here');
  const files = await filesOf(event.dataTransfer);
  if (files.length) bringIn(files);
});

document.getElementById('folder-form')?.addEventListener('submit', async event => {
  event.preventDefault();
  begin('Looking into the folder\u2026');
  const json = { folder: document.getElementById('folder').value, within: document.getElementById('folder-within').checked };
  try {
    follow(JSON.parse((await ask('POST', `${imports}/folder`, { json })).text).id);
  } catch (problem) {
    fail(problem.message);
  }
});

findUnderWay();
