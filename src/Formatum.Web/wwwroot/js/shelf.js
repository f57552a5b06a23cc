// Takes a bundle in, chosen or dropped on the shelf, and opens what was in it.
import { headers, Problem, problemOf, unreachable } from './shared/http.js';
import { leavePage } from './shared/leave.js';
import { tellAfterwards } from './shared/notices.js';

const panel = document.getElementById('intake');
const progress = document.getElementById('intake-progress');
const words = document.getElementById('intake-words');
const cancel = document.getElementById('intake-cancel');
const close = document.getElementById('intake-close');
const input = document.getElementById('bundle-file');
let sending = null;

function show(text, { done = false, sent = null } = {}) {
  panel.hidden = false;
  words.textContent = text;
  progress.hidden = cancel.hidden = done;
  close.hidden = !done;
  if (sent === null) progress.removeAttribute('value');
  else progress.value = sent;
}

function listed(names, what) {
  if (names.length === 0) return '';
  const some = `${names.slice(0, 4).join(', ')}${names.length > 4 ? ' ...' : ''}`;
  return ` ${names.length} of its linked files ${names.length === 1 ? 'was' : 'were'} ${what}: ${some}.`;
}

function open(answer) {
  const changed = listed(answer.changed, 'changed before it was bundled'), missing = listed(answer.missing, 'missing when it was bundled');
  tellAfterwards(`${answer.name} is on the shelf.${changed}${missing}`);
  leavePage(`/publications/${answer.id}/desk`);
}

function takeIn(file) {
  const form = new FormData(), request = sending = new XMLHttpRequest();
  form.append('files', file);
  show(`Sending ${file.name}\u2026`, { sent: 0 });
  request.open('POST', '/api/bundles');
  for (const [name, value] of Object.entries(headers())) request.setRequestHeader(name, value);
  request.upload.addEventListener('progress', event => { if (event.lengthComputable) show(`Sending ${file.name}\u2026`, { sent: event.loaded / event.total });
      });
  request.upload.addEventListener('load', () => {
    show('Unpacking, and reading its pictures\u2026 It goes on if you leave; the publication is then on the shelf.');
    cancel.hidden = true;
  });
  request.addEventListener('loadend', () => { sending = null; });
  request.addEventListener('load', () => {
    const answer = problemOf(request.responseText);
    if (request.status === 201) open(answer);
    else show(new Problem(request.status, answer).message, { done: true });
  });
  request.addEventListener('error', () => show(unreachable, { done: true }));
  request.addEventListener('abort', () => { panel.hidden = true; });
  request.send(form);
}

document.getElementById('take-in').addEventListener('click', () => input.click());
input.addEventListener('change', () => {
  if (input.files.length && !sending) takeIn(input.files[0]);
  input.value = '';
});
cancel.addEventListener('click', () => sending?.abort());
close.addEventListener('click', () => { panel.hidden = true; });

document.addEventListener('dragover', event => { if (event.dataTransfer.types.includes('Files')) event.preventDefault(); });
document.addEventListener('drop', event => {
  if (event.dataTransfer.files.length === 0) return;
  event.preventDefault();
  if (!sending) takeIn(event.dataTransfer.files[0]);
});

document.getElementById('shelf-sort')?.addEventListener('change', event => event.target.form.requestSubmit());
