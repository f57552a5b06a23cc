// House style, fonts: files are picked or dropped and sent; what came of each is told.
import { actOn, revision } from './shared/acting.js';
import { ask, problemOf, valuesOf } from './shared/http.js';
import { tell } from './shared/notices.js';

const page = document.getElementById('fonts'), input = document.getElementById('font-files'), add = document.getElementById('add-fonts');
const problems = document.getElementById('font-problems'), impact = document.getElementById('impact');
const { address, publication } = page.dataset;
let sending = false;
const { act, go } = actOn(address, publication, () => sending || impact.querySelector('#apply') || problems.children.length,
  () => { document.getElementById('elsewhere').hidden = false; });

function line({ name, error }) {
  const item = document.createElement('li'), strong = document.createElement('strong');
  strong.textContent = name;
  item.append(strong, ` ${error}`);
  return item;
}

// What the page lists, as it is now; what it says of files that did not come in stays.
async function showAnew() {
  const now = new DOMParser().parseFromString((await ask('GET', address)).text, 'text/html');
  for (const id of ['font-names', 'font-families', 'history']) {
    const part = document.getElementById(id);
    part.replaceChildren(...now.getElementById(id).childNodes);
    window.htmx.process(part);
  }
  document.getElementById('own-fonts').href = `${address}.css?${Date.now()}`;
}

async function send(files) {
  if (!files.length || sending) return;
  sending = add.disabled = true;
  add.textContent = 'Reading \u2026';
  const form = new FormData();
  for (const file of files) form.append('files', file);
  try {
    const report = problemOf((await ask('POST', `/api/publications/${publication}/fonts?seen=${revision()}`, { form, seconds: 600 })).text);
    problems.replaceChildren(...report.filter(r => r.error).map(line));
    await showAnew();
  } catch (problem) {
    tell(problem.message);
  }
  sending = add.disabled = false;
  add.textContent = 'Add fonts';
}

add.addEventListener('click', () => input.click());
input.addEventListener('change', () => {
  send([...input.files]);
  input.value = '';
});
page.addEventListener('dragover', event => {
  if (!event.dataTransfer.types.includes('Files')) return;
  event.preventDefault();
  page.classList.add('is-over');
});
page.addEventListener('dragleave', event => { if (!page.contains(event.relatedTarget)) page.classList.remove('is-over'); });
page.addEventListener('drop', event => {
  event.preventDefault();
  page.classList.remove('is-over');
  send([...event.dataTransfer.files]);
});

document.addEventListener('click', event => {
  if (event.target.closest('#discard')) go(address);
  const asked = event.target.closest('[data-act]'), face = event.target.closest('[data-remove]');
  if (asked) act(asked.dataset.act, valuesOf(JSON.parse(asked.dataset.values)));
  if (face) window.htmx.ajax('POST', `${address}?handler=Remove`, { target: '#impact', values: { fonts: face.dataset.remove } });
});
