// Compare: what it is compared with is asked for at once, and pages are shown beside or over each other. PDFs made before can be brought.
import { ask, problemOf } from './shared/http.js';
import { drawPages } from './compare/pages.js';
import { tell } from './shared/notices.js';

const screen = document.getElementById('compare'), form = document.getElementById('compare-form');
const main = document.querySelector('.compare-main');
const bring = document.getElementById('bring-pdf'), input = document.getElementById('pdf-file');

// Pages laid over each other are shown this wide, in px (see the style sheet).
const widest = 460;

form.addEventListener('change', event => {
  if (event.target === input) return;
  // Which recipe made it is asked for each PDF anew.
  const recipe = form.elements.as;
  if (recipe && event.target !== recipe) recipe.disabled = true;
  if (form.elements.with.value) form.requestSubmit();
});
for (const choice of document.querySelectorAll('[name=view]')) choice.addEventListener('change', () => { main.dataset.view = choice.value; });

async function send(file) {
  if (!file || bring.disabled) return;
  bring.disabled = true;
  bring.textContent = 'Reading \u2026';
  const values = new FormData();
  values.append('files', file);
  try {
    const kept = problemOf((await ask('POST', `/api/publications/${screen.dataset.publication}/compare/pdfs`, { form: values, seconds: 900 })).text);
    window.location.assign(`?with=${kept.with}`);
    return;
  } catch (problem) {
    tell(problem.status ? `${file.name}: ${problem.message}` : problem.message);
  }
  bring.disabled = false;
  bring.textContent = 'Bring a PDF ...';
}

bring.addEventListener('click', () => input.click());
input.addEventListener('change', () => {
  send(input.files[0]);
  input.value = '';
});
screen.addEventListener('dragover', event => {
  if (!event.dataTransfer.types.includes('Files')) return;
  event.preventDefault();
  screen.classList.add('is-over');
});
screen.addEventListener('dragleave', event => { if (!screen.contains(event.relatedTarget)) screen.classList.remove('is-over'); });
screen.addEventListener('drop', event => {
  event.preventDefault();
  screen.classList.remove('is-over');
  send(event.dataTransfer.files[0]);
});

const compared = document.getElementById('compared-file');
compared?.addEventListener('htmx:afterSwap', () => {
  const sum = compared.querySelector('.compare-sum');
  if (sum) drawPages(main, { before: sum.dataset.before, now: sum.dataset.now }, widest);
  compared.dataset.ready = 'yes';
});
compared?.addEventListener('htmx:responseError', () => { compared.textContent = 'The pages could not be made. Reload this page to try again.'; });
compared?.addEventListener('htmx:sendError', () => { compared.textContent = 'The server does not answer. Reload this page when it runs.'; });
screen.dataset.ready = 'yes';
