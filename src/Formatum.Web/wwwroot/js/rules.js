// House style: what is typed is sent, what the server makes of it is shown. Nothing is computed here.
import { valuesOf } from './shared/http.js';
import { actOn } from './shared/acting.js';

const rules = document.getElementById('rules');
const form = document.getElementById('rule-form');
const { address } = rules.dataset;
let changed = rules.dataset.changed === 'yes';

form.addEventListener('input', () => { changed = true; });
form.addEventListener('submit', event => event.preventDefault());

// The nine places of alignment fill in the two fields.
const nine = document.getElementById('rule-nine');
const field = name => form.querySelector(`[name="Set[${name}]"]`);
nine?.addEventListener('click', event => {
  const button = event.target.closest('button');
  if (!button) return;
  field('AlignX').value = button.dataset.x;
  field('AlignY').value = button.dataset.y;
  for (const kind of ['change', 'input']) form.dispatchEvent(new Event(kind, { bubbles: true }));
});
if (nine) form.addEventListener('input', showNine);
function showNine() {
  for (const button of nine.querySelectorAll('button'))
      button.setAttribute('aria-pressed', button.dataset.x === field('AlignX').value && button.dataset.y === field('AlignY').value);
}

// Not where the answers go that may still be on their way.
export const { act, go, isLeaving } = actOn(address, rules.dataset.publication, () => changed, () => { document.getElementById('elsewhere').hidden = false; });

document.addEventListener('click', event => {
  if (event.target.closest('#discard')) go(rules.dataset.anew ?? address);
  const asked = event.target.closest('[data-act]');
  if (asked) act(asked.dataset.act, asked.dataset.values ? valuesOf(JSON.parse(asked.dataset.values)) : new FormData(form));
});

// What was asked for in a card is shown at the right; the card has done its work.
document.addEventListener('htmx:afterRequest', event => {
  if (event.detail.successful) event.target.closest('[popover]')?.hidePopover();
});

// Typed but not applied: nothing is lost without a word.
window.addEventListener('beforeunload', event => {
  if (changed && !isLeaving()) event.preventDefault();
});

// Among many rules, those whose names hold what is typed.
const search = document.getElementById('rule-search');
search?.addEventListener('input', () => {
  const wanted = search.value.trim().toLowerCase();
  for (const item of document.querySelectorAll('.rule-list li')) item.hidden = !item.querySelector('.rule-name').textContent.toLowerCase().includes(wanted);
});
document.querySelector('.rule-item[aria-current]')?.scrollIntoView({ block: 'nearest' });
