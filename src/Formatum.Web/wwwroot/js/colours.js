// House style, colours: a slider or picker beside a field writes into it; palettes come from files, colours from pictures. Nothing is computed here.
import { act } from './rules.js';
import { ask, valuesOf } from './shared/http.js';
import { tell } from './shared/notices.js';

const form = document.getElementById('rule-form');
const file = document.getElementById('palette-file'), pictures = document.getElementById('from-picture');

form.addEventListener('input', event => {
  const { id, dataset: { of } } = event.target;
  const other = of ? document.getElementById(of) : id ? form.querySelector(`[data-of="${id}"]`) : null;
  if (other) other.value = event.target.value;
});

document.getElementById('import-palette').addEventListener('click', () => file.click());
file.addEventListener('change', () => {
  const sent = valuesOf({ seen: form.elements.Seen.value, file: file.files[0] });
  file.value = '';
  act('Import', sent);
});

pictures?.addEventListener('change', async event => {
  // Which picture is looked at is nothing that is typed of the colour.
  event.stopPropagation();
  const place = document.getElementById('main-colours');
  place.replaceChildren();
  if (!pictures.value) return;
  try {
    place.innerHTML = (await ask('GET', pictures.dataset.address + pictures.value)).text;
  } catch (problem) {
    tell(problem.message);
  }
});
pictures?.addEventListener('input', event => event.stopPropagation());
