// What was typed in the inspector and not taken yet: kept when the inspector is sent anew, with what is wrong about it.
import { settleFields } from '../shared/renew.js';
import { inspector } from './parts.js';

const typed = new Map();
let leaving = false;

const isField = element => element.id && element.matches('input:not([type=checkbox], [type=radio], [type=range], [type=color]), textarea');

inspector.addEventListener('input', event => {
  if (isField(event.target)) typed.set(event.target.id, event.target.value);
});

// Whether somebody types in a field what was not sent yet, or it is none of the inspector's.
export const isBeingTyped = field => !inspector.contains(field) || typed.has(field.id);

// What a field holds is on its way: once it is taken, the server's words for it stand there.
export function sending(field) {
  field.classList.remove('is-invalid');
  typed.delete(field.id);
  sent.set(field.id, field.value);
}

const sent = new Map();

const isInside = () => inspector.querySelector('[data-inside]') !== null;

// Swaps the inspector, and puts back what is still being typed, the caret where it was.
export function keepTyped(swap) {
  const active = document.activeElement, held = inspector.contains(active) && isField(active)
      ? { id: active.id, from: active.selectionStart, to: active.selectionEnd } : null;
  const { scrollTop } = inspector, wasInside = isInside();
  leaving = true;
  swap();
  settleFields(inspector, field => typed.has(field.id));
  leaving = false;
  // It stays where it was scrolled to, whatever came or went in it; another card begins at its top.
  inspector.scrollTop = isInside() === wasInside ? scrollTop : 0;
  for (const [id, value] of typed) {
    const field = document.getElementById(id);
    if (field && inspector.contains(field)) field.value = value;
    else typed.delete(id);
  }
  const field = held && document.getElementById(held.id);
  if (!field || field === document.activeElement && !typed.has(held.id)) return;
  field.focus({ preventScroll: true });
  if (typed.has(held.id) && held.from !== null) field.setSelectionRange(held.from, held.to);
}

// Whether a field is losing focus only because the inspector is sent anew.
export const isSwapping = () => leaving;

// "inset.top" and "align" of the automation interface are the fields insetTop and alignX here.
function fieldOf(name) {
  if (name === 'align') return 'alignX';
  if (/^(look|columns|wrap)\./.test(name)) return name;
  return name.replace(/^recrop\./, '').replace(/\.(\w)/, (_, letter) => letter.toUpperCase());
}

// Tells what is wrong beside the fields, with what was typed in them. Whether any field was found.
export function showErrors(errors) {
  let shown = false;
  for (const [name, messages] of Object.entries(errors)) {
    const words = inspector.querySelector(`[data-error-of="${CSS.escape(fieldOf(name))}"]`);
    if (!words) continue;
    const input = words.parentElement.querySelector('input, select');
    if (input && sent.has(input.id)) {
      input.value = sent.get(input.id);
      typed.set(input.id, input.value);
    }
    input?.classList.add('is-invalid');
    words.textContent = messages.join(' ');
    words.style.display = 'block';
    shown = true;
  }
  sent.clear();
  return shown;
}

// Takes back what was typed in a field.
export function forget(field) {
  typed.delete(field.id);
  field.value = field.defaultValue;
}
