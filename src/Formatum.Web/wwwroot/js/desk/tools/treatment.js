// The treatment of a picture while a slider is moved: asked for on the line of drags, shown as it is answered, and stored when the slider is let go.
import { asker } from '../line.js';
import { frameElement, inspector } from '../parts.js';
import { watch } from '../state.js';

let asking = null;

inspector.addEventListener('input', event => {
  const { look, slides } = event.target.dataset;
  if (!slides) return;
  document.getElementById(slides).value = event.target.value;
  asking ??= asker(answer => answer.filters?.forEach(show));
  asking.ask({ do: 'look', look, value: event.target.value });
});

// What is stored is shown by its own answer.
watch(['answered', 'selection'], () => {
  asking?.close();
  asking = null;
});

function show({ frame, steps }) {
  const treated = frameElement(frame)?.querySelector('.treated');
  if (!treated) return;
  const id = `cliptreatment${frame}`;
  let filter = document.getElementById(id);
  if (!filter) {
    treated.insertAdjacentHTML('beforebegin', `<filter id="${id}" x="0" y="0" width="1" height="1" color-interpolation-filters="sRGB"></filter>`);
    filter = document.getElementById(id);
  }
  filter.innerHTML = steps;
  if (steps) treated.setAttribute('filter', `url(#${id})`);
  else treated.removeAttribute('filter');
}
