// Frames that a form makes, a grid or copies, are shown on the page while it is filled in, before they are made.
import { asker } from '../line.js';
import { inspector, underWay } from '../parts.js';
import { gridCard, gridForm, gridValues } from './draw.js';
import { state } from '../state.js';

// Where the words go that say how many there will be; null where nothing is shown.
let wordsAt = null;

const preview = asker(answer => {
  if (!wordsAt || state.writing !== null) return;
  underWay.innerHTML = answer.preview ?? '';
  const words = document.getElementById(wordsAt);
  if (words) words.textContent = answer.preview ? `${answer.words}.` : '';
});

function show(command, at) {
  wordsAt = at;
  preview.ask(command);
}

function clear() {
  if (!wordsAt) return;
  const words = document.getElementById(wordsAt);
  if (words) words.textContent = '';
  wordsAt = null;
  if (state.writing === null) underWay.replaceChildren();
}

const repeatForm = event => event.target.closest?.('#repeat-form');
for (const kind of ['input', 'focusin']) {
  inspector.addEventListener(kind, event => {
    const form = repeatForm(event);
    if (form && event.target.id !== 'paste-rule') show({ do: 'repeat', ...Object.fromEntries(new FormData(form)) }, 'repeat-words');
  });
}
inspector.addEventListener('focusout', event => { if (repeatForm(event)) clear(); });
inspector.addEventListener('submit', event => { if (repeatForm(event)) clear(); });

// A grid fills the margins unless another way to lay it is under the pointer or the keys.
const showGrid = fills => (fills ? show({ do: 'grid', ...gridValues(), fills }, 'grid-words') : clear());
gridForm.addEventListener('input', () => showGrid('margins'));
gridCard.addEventListener('toggle', event => (event.newState === 'open' ? showGrid('margins') : clear()));
for (const kind of ['pointerover', 'focusin']) {
  gridForm.addEventListener(kind, event => {
    const button = event.target.closest('[data-fills]');
    if (button) showGrid(button.dataset.fills);
  });
}
