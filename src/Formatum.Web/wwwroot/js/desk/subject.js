// The card on which an image's subject point is set: a click, the arrow keys, or a suggestion accepted.
import { address } from './parts.js';
import { ask } from '../shared/http.js';
import { post, postCommand, refresh } from './edits.js';
import { tell } from '../shared/notices.js';
import { state } from './state.js';

const dialog = document.getElementById('subject-dialog');
const image = () => dialog.querySelector('[data-image]').dataset.image;
const fieldIn = () => dialog.querySelector('#subject-field');
let seen = 0;

function formOf(values) {
  const form = new FormData();
  for (const [name, value] of Object.entries(values)) form.append(name, value);
  return form;
}

const suggest = values => shown(post('Suggest', formOf(values), { seen }));
const sendSubject = command => shown(postCommand('Subject', { image: Number(image()), ...command }, { seen }));

async function shown(sent) {
  const { done } = await sent;
  if (!done) return;
  if (done.text) dialog.innerHTML = done.text;
  await refresh();
}

document.addEventListener('click', async event => {
  const opener = event.target.closest('[data-subject]');
  if (opener) {
    await open(opener.dataset.subject);
    return;
  }
  if (event.target.closest('#suggest-all')) {
    tell('Looking for the subject of every picture\u2026');
    seen = state.revision;
    await suggest({});
    return;
  }
  const action = event.target.closest('[data-subject-do]')?.dataset.subjectDo;
  if (action === 'close') dialog.close();
  else if (action === 'suggest') await suggest({ image: image() });
  else if (action) await sendSubject({ do: action });
});

async function open(id) {
  seen = state.revision;
  const answer = await ask('GET', `${address}?handler=Subject&image=${id}`).catch(problem => tell(problem.message) && null);
  if (!answer) return;
  dialog.innerHTML = answer.text;
  if (!dialog.open) dialog.showModal();
  fieldIn().focus();
}

dialog.addEventListener('click', event => {
  const field = event.target.closest('#subject-field');
  if (!field) return;
  const box = field.querySelector('img').getBoundingClientRect();
  set((event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height);
});

const arrows = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
dialog.addEventListener('keydown', event => {
  const field = event.target.closest('#subject-field'), way = arrows[event.key];
  if (!field || !way) return;
  event.preventDefault();
  const step = event.shiftKey ? 0.1 : 0.01;
  // The next press goes on from here, whether or not this one was answered.
  Object.assign(field.dataset, { x: inside(Number(field.dataset.x) + way[0] * step), y: inside(Number(field.dataset.y) + way[1] * step) });
  set(Number(field.dataset.x), Number(field.dataset.y));
});

const inside = value => Math.min(1, Math.max(0, value));

function set(x, y) {
  return sendSubject({ do: 'subject-set', pointX: inside(x), pointY: inside(y) }).then(() => fieldIn()?.focus());
}
