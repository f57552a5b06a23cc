// The inspector and every button that asks for an edit: what they hold is sent, what is to be remembered from one answer to the next is.
import { choose, edit } from './edits.js';
import { forget, isSwapping, sending } from './typed.js';
import { canvas, inspector, numbers } from './parts.js';
import { isTyping } from '../shared/pointer.js';
import { state, watch } from './state.js';

// The point of a frame that stays when it takes on the size of its picture, the one it turns about, and what frames line up with.
const remembered = { reference: '0,0', pivot: '0.5,0.5', lineUpWith: 'EachOther' };

function point(text) {
  const [referenceX, referenceY] = text.split(',');
  return { referenceX, referenceY };
}
export const pivot = () => point(remembered.pivot);

// ---- What the grips of a frame do with its picture: kept in this browser ------------------------------------------------------------------

const gripsKept = 'desk-grips';
export const gripsCrop = () => localStorage.getItem(gripsKept) === 'crop';

document.addEventListener('click', event => {
  const choice = event.target.closest('[data-grips]')?.dataset.grips;
  if (!choice) return;
  localStorage.setItem(gripsKept, choice);
  showRemembered();
});

// ---- Buttons ------------------------------------------------------------------------------------------------------------------------

document.addEventListener('click', event => {
  const button = event.target.closest('button[data-do]');
  if (button) edit(commandOf(button));
});

function commandOf({ dataset: d }) {
  const command = { do: d.do };
  // From the list, what is chosen stays so.
  if (d.frames) Object.assign(command, { frames: d.frames, keep: state.selection.join(',') || 'none' });
  for (const name of ['images', 'stack', 'same', 'lineUp', 'fit', 'into', 'look']) if (d[name]) command[name] = d[name];
  if ('value' in d) command.value = d.value;
  if (d.across) command.across = d.across === 'true';
  if (d.do === 'line-up' || d.do === 'distribute') command.with = remembered.lineUpWith;
  if (d.do === 'distribute') command.gap = document.getElementById('spread-gap').value;
  if (d.x) Object.assign(command, { alignX: d.x, alignY: d.y });
  if (d.settings) command.settings = d.settings.split(',');
  if (d.takes) Object.assign(command, { takes: d.takes, ...point(remembered.reference) });
  return command;
}

inspector.addEventListener('click', event => {
  const button = event.target.closest('[data-reference], [data-pivot], [data-choose]');
  if (!button) return;
  if (button.dataset.choose) choose(numbers(button.dataset.choose));
  if (button.dataset.reference) remembered.reference = button.dataset.reference;
  if (button.dataset.pivot) remembered.pivot = button.dataset.pivot;
  showRemembered();
});

// ---- Fields -------------------------------------------------------------------------------------------------------------------------

inspector.addEventListener('change', event => {
  const field = event.target;
  if (isSwapping()) return;
  if (field.id === 'line-up-with') remembered.lineUpWith = field.value;
  const command = commandOfField(field);
  if (!command) return;
  sending(field);
  edit(command);
});

const checked = field => (field.type === 'checkbox' ? field.checked : field.value);

// What a field asks for; null where another part of the Desk has to do with it.
function commandOfField(field) {
  const d = field.dataset;
  if (d.setting) return { do: 'set', settings: [d.setting], value: String(checked(field)) };
  if (d.look) return { do: 'look', look: d.look, value: lookValue(field) };
  if ('contour' in d) return { do: 'contour', strength: Number(field.value) };
  if (d.flow) return { do: 'flow', what: d.flow, value: String(checked(field)) };
  if (field.id === 'choose-by-rule') {
    if (field.value) choose(numbers(field.value));
    return null;
  }
  if (field.matches('[data-outline]')) {
    const [outline, sides] = field.value.split('-');
    return { do: 'outline', outline, sides: sides ?? 6 };
  }
  if (field.matches('select[data-do], input[data-do]')) {
    if (!field.value && !('empty' in d)) return null;
    return { do: d.do, [d.value]: field.value || null, ...(d.page && { page: d.page }) };
  }
  return field.closest('.typed') ? { do: 'type', [field.name]: field.value, ...pivot() } : null;
}

// The background is switched on with the colour beside it.
function lookValue(field) {
  if (field.type !== 'checkbox') return field.value;
  if (!field.dataset.colour) return String(field.checked);
  return field.checked ? document.getElementById(field.dataset.colour).value : 'none';
}

inspector.addEventListener('submit', event => {
  event.preventDefault();
  const form = new FormData(event.target);
  if (event.target.id === 'make-rule') edit({ do: 'make-rule', name: form.get('name'), settings: form.getAll('settings') });
  else if (event.target.id === 'make-look') edit({ do: 'make-look', name: form.get('name'), settings: form.getAll('settings') });
  else if (event.target.id === 'make-style') return;
  else if (event.target.id === 'repeat-form') edit({ do: 'repeat', ...Object.fromEntries(form) });
  // Enter in a field tells what was typed, and gives the keys back to the page.
  canvas.focus({ preventScroll: true });
});

// Escape in a field takes back what was typed there, and gives the keys back to the page.
inspector.addEventListener('keydown', event => {
  if (event.key !== 'Escape' || !isTyping(event.target)) return;
  event.preventDefault();
  event.stopPropagation();
  if (event.target.matches('input, textarea')) forget(event.target);
  canvas.focus({ preventScroll: true });
});

// Arrows step a figure up and down, with Shift ten times as far. A hand that goes on pressing makes one edit of it.
const figure = /^\s*([-\u2212]?\d+(?:[.,]\d+)?)(.*)$/, stepsRest = 260;
let stepping = null;

inspector.addEventListener('keydown', event => {
  const field = event.target, by = { ArrowUp: 1, ArrowDown: -1 }[event.key];
  if (!by || !field.matches('input:not([type]), input[type=text]') || event.ctrlKey || event.metaKey || event.altKey) return;
  const [, number, unit] = figure.exec(field.value) ?? [];
  if (number === undefined) return;
  event.preventDefault();
  event.stopPropagation();
  const now = Number(number.replace('\u2212', '-').replace(',', '.')) + by * (event.shiftKey ? 10 : 1);
  field.value = `${Math.round(now * 1e6) / 1e6}${unit}`;
  field.dispatchEvent(new Event('input', { bubbles: true }));
  clearTimeout(stepping);
  stepping = setTimeout(() => field.dispatchEvent(new Event('change', { bubbles: true })), stepsRest);
});

// ---- What an answer brings is shown as it was ------------------------------------------------------------------------------------------

const opened = new Set();
inspector.addEventListener('toggle', event => {
  if (event.target.open) opened.add(event.target.id);
  else if (event.target.isConnected) opened.delete(event.target.id);
}, true);

function showRemembered() {
  for (const id of opened) document.getElementById(id)?.setAttribute('open', '');
  for (const button of inspector.querySelectorAll('[data-reference]')) button.setAttribute('aria-checked', button.dataset.reference === remembered.reference);
  for (const button of inspector.querySelectorAll('[data-pivot]')) button.setAttribute('aria-checked', button.dataset.pivot === remembered.pivot);
  for (const button of inspector.querySelectorAll('[data-grips]')) button.setAttribute('aria-checked', (button.dataset.grips === 'crop') === gripsCrop());
  for (const mixed of inspector.querySelectorAll('[type=checkbox][aria-description]')) mixed.indeterminate = true;
  const select = document.getElementById('line-up-with');
  if (select) select.value = remembered.lineUpWith;
  canvas.classList.toggle('is-inside', state.inside);
}
watch(['answered', 'inside'], showRemembered);
showRemembered();
