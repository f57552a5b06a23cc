// Output: what is typed is sent, what the server makes of it is shown; the list of outputs is looked at while any is under way. Nothing is computed here.
import { actOn, revision } from './shared/acting.js';
import { ask, problemOf, valuesOf } from './shared/http.js';
import { onUpdated } from './shared/updates.js';
import { tell } from './shared/notices.js';

const page = document.getElementById('output'), form = document.getElementById('recipe-form'), outputs = document.getElementById('outputs');
const { address, publication } = page.dataset;
const LookAgain = 700;
let changed = false, looking = 0;

const { act, lead, isLeaving } = actOn(address, publication, () => changed, () => {});

form.addEventListener('input', () => { changed = true; });
form.addEventListener('submit', event => event.preventDefault());

// What is typed outlives the page that comes anew for a press that is chosen, or a step that is taken back.
const keptAs = `typed ${address}`;
const keepTyped = () => { if (changed) sessionStorage.setItem(keptAs, JSON.stringify([...new FormData(form)])); };
async function actHere(what, given) {
  keepTyped();
  await act(what, given);
  if (!isLeaving()) sessionStorage.removeItem(keptAs);
}
function takeUpTyped() {
  const kept = JSON.parse(sessionStorage.getItem(keptAs) ?? 'null');
  sessionStorage.removeItem(keptAs);
  if (!kept) return;
  const typed = new Map(kept);
  for (const field of form.elements) {
    if (field.type === 'checkbox') field.checked = typed.has(field.name);
    else if (typed.has(field.name)) field.value = typed.get(field.name);
  }
  changed = true;
  for (const target of [document.getElementById('imposition'), form]) target?.dispatchEvent(new Event('change', { bubbles: target === form }));
}
document.addEventListener('DOMContentLoaded', takeUpTyped);
document.addEventListener('click', event => { if (event.target.closest('#history [data-do]')) keepTyped(); }, true);
document.addEventListener('keydown', event => { if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') keepTyped(); }, true);

// Where the summary says what is wrong with a field, the field says so too.
document.addEventListener('htmx:afterSwap', event => {
  if (event.detail.target.id !== 'summary') return;
  const wrong = event.detail.target.querySelectorAll('[data-field]');
  for (const place of document.querySelectorAll('[data-error]'))
      place.textContent = [...wrong].find(item => item.dataset.field === place.dataset.error)?.textContent ?? '';
});

// Of this publication and of the house's library, whose recipes are shown too.
const seen = () => ({ seen: revision(), seenHouse: page.dataset.house });

const values = more => {
  const all = new FormData(form);
  for (const [name, value] of Object.entries(more)) all.set(name, value);
  return all;
};

function show(list) {
  outputs.innerHTML = list;
  clearTimeout(looking);
  if (outputs.querySelector('[data-busy="yes"]')) looking = setTimeout(look, LookAgain);
}

// Whatever goes wrong, it is looked at again: an output goes on without this page.
async function look() {
  try {
    show((await ask('GET', `${address}?handler=List`)).text);
  } catch {
    looking = setTimeout(look, LookAgain);
  }
}

async function change(handler, given) {
  try {
    show((await ask('POST', `${address}?handler=${handler}`, { form: given })).text);
  } catch (problem) {
    tell(problem.message);
  }
}

onUpdated(() => form.dispatchEvent(new Event('change')));

// What is asked of sheets goes by how pages are laid on them.
document.getElementById('imposition')?.addEventListener('change', event => { document.getElementById('sheets-part').dataset.kind = event.target.value; });
document.getElementById('sheets-card').addEventListener('beforetoggle', async event => {
  if (event.newState !== 'open') return;
  const card = event.target;
  card.textContent = 'Laying the pages out \u2026';
  try {
    card.innerHTML = (await ask('POST', `${address}?handler=Sheets`, { form: new FormData(form) })).text;
  } catch (problem) {
    card.hidePopover();
    tell(problem.message);
  }
});

// What is said there is no part of the recipe: nothing is asked for again, which would take it away.
for (const kind of ['input', 'change']) document.getElementById('summary').addEventListener(kind, event => event.stopPropagation());

const make = document.getElementById('make');
make.addEventListener('click', async () => {
  // With faults it has to be said that it shall be made all the same.
  const sure = document.getElementById('sure'), given = new FormData(form);
  if (sure && !sure.reportValidity()) return;
  if (sure) given.set('sure', sure.checked);
  make.disabled = true;
  await change('Make', given);
  make.disabled = false;
});

// One card for all outputs; what was typed into it stays for the next.
const hand = document.getElementById('hand-form'), handCard = document.getElementById('hand-card');
let handed = null;
function askHand(button) {
  handed = button.dataset.hand;
  handCard.showPopover();
  if (!hand) return;
  document.getElementById('hand-file').textContent = button.dataset.file;
  document.getElementById('hand-proof').hidden = button.dataset.proof !== 'yes';
  document.getElementById('hand-binding').value = button.dataset.binding;
  document.getElementById('hand-error').textContent = '';
  document.getElementById('hand-copies').select();
}
hand?.addEventListener('submit', async event => {
  event.preventDefault();
  const given = new FormData(hand), button = hand.querySelector('button');
  given.set('output', handed);
  button.disabled = true;
  try {
    show((await ask('POST', `${address}?handler=Hand`, { form: given })).text);
    handCard.hidePopover();
  } catch (problem) {
    document.getElementById('hand-error').textContent = problem.message;
  }
  button.disabled = false;
});
outputs.addEventListener('click', event => {
  const asked = event.target.closest('[data-hand]');
  if (asked) askHand(asked);
  const drop = event.target.closest('[data-drop]');
  if (drop) change('Drop', valuesOf({ output: drop.dataset.drop }));
});

document.getElementById('keep-form').addEventListener('submit', event => {
  event.preventDefault();
  const kept = new FormData(event.target);
  act('Keep', values({ name: kept.get('name'), house: kept.get('house'), ...seen() }));
});
document.addEventListener('click', event => {
  const asked = event.target.closest('[data-act]');
  if (asked) act(asked.dataset.act, values(seen()));
});

document.getElementById('press').addEventListener('change', event => actHere('Press', valuesOf({ press: event.target.value, seen: revision() })));

function fromFile(button, input, take) {
  const field = document.getElementById(input);
  document.getElementById(button).addEventListener('click', () => field.click());
  field.addEventListener('change', () => {
    if (field.files.length) take(field.files[0]);
    field.value = '';
  });
}
fromFile('bring-profile', 'profile-file', file => actHere('Profile', values({ file, seen: revision() })));
fromFile('take-recipe', 'recipe-file', async file => {
  const json = problemOf(await file.text());
  if (json === null || typeof json !== 'object') {
    tell('This file holds no recipe. Choose one that was saved here or in another Formatum.');
    return;
  }
  await lead(async () => {
    const made = problemOf((await ask('POST', `/api/publications/${publication}/recipes?seen=${revision()}`, { json })).text);
    return `/publications/${publication}/output/${made.key}`;
  }, 'The recipe was not taken: ');
});

show(outputs.innerHTML);
