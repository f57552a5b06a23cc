// House style from elsewhere: what is chosen is sent, what the server makes of it is shown. Nothing is computed here.
import './rules.js';

const form = document.getElementById('rule-form');

function choose(boxes, selects) {
  for (const box of form.querySelectorAll('.take-part input')) box.checked = boxes;
  for (const select of form.querySelectorAll('.take-part select')) select.value = selects;
  for (const kind of ['input', 'change']) form.dispatchEvent(new Event(kind, { bubbles: true }));
}
document.getElementById('take-all')?.addEventListener('click', () => choose(true, ''));
document.getElementById('take-none')?.addEventListener('click', () => choose(false, ''));
document.getElementById('take-over')?.addEventListener('click', () => choose(true, 'Replaced'));
