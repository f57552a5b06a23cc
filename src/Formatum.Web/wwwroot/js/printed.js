// A spread as printed: asks for the view that is chosen, and for the ink under the pointer. Nothing is computed here.
import { ask, problemOf } from './shared/http.js';
import { tell } from './shared/notices.js';

const page = document.getElementById('printed'), picture = document.getElementById('picture'), under = document.getElementById('under');
const limit = document.getElementById('limit'), legend = document.getElementById('legend'), mark = document.getElementById('most-mark');
const legends = {
  printed: 'As paper and ink will show it, as far as this screen can.',
  gamut: 'Striped: colours that come out visibly different. All else is greyed.',
  ink: 'The darker, the more ink. Striped: more than the figure above. The ring is where the most lies.',
};

const shown = () => document.querySelector('[name=show]:checked').value;

function show() {
  const what = shown(), address = `${page.dataset.picture}?show=${what}&limit=${Number(limit.value) || 0}&of=${page.dataset.revision}`;
  legend.textContent = legends[what];
  limit.disabled = what !== 'ink';
  placeMark();
  page.setAttribute('aria-busy', 'true');
  picture.src = address;
}

picture.addEventListener('load', () => page.removeAttribute('aria-busy'));
// A picture cannot say why it is not there: it is asked for once more.
picture.addEventListener('error', async () => {
  page.removeAttribute('aria-busy');
  try {
    await ask('GET', picture.src);
    show();
  } catch (problem) {
    tell(problem.message);
  }
});

function placeMark() {
  const most = document.getElementById('most-ink');
  mark.hidden = !most || shown() !== 'ink';
  if (!most) return;
  mark.style.left = `${most.dataset.x * 100}%`;
  mark.style.top = `${most.dataset.y * 100}%`;
}

// One question at a time; the newest place wins.
let wanted = null, asking = false;
async function answer() {
  if (asking || !wanted) return;
  asking = true;
  const { x, y } = wanted;
  wanted = null;
  try {
    under.textContent = problemOf((await ask('GET', `${page.dataset.ink}?x=${x}&y=${y}`)).text).words;
  } catch {
    under.textContent = '\u2013';
  }
  asking = false;
  answer();
}
picture.addEventListener('pointermove', event => {
  const box = picture.getBoundingClientRect();
  wanted = { x: (event.clientX - box.left) / box.width, y: (event.clientY - box.top) / box.height };
  answer();
});

for (const choice of document.querySelectorAll('[name=show]')) choice.addEventListener('change', show);
limit.addEventListener('change', show);
document.addEventListener('htmx:afterSwap', placeMark);
document.addEventListener('keydown', event => {
  if (event.target.closest('input') || event.ctrlKey || event.altKey || event.metaKey) return;
  const link = { ArrowLeft: 'before', PageUp: 'before', ArrowRight: 'next', PageDown: 'next' }[event.key];
  if (link) document.getElementById(link)?.click();
});
show();
