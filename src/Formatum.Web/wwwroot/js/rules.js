// House style: what is typed is sent, what the server makes of it is shown. Nothing is computed here.
import { ask } from './shared/http.js';
import { leavePage } from './shared/leave.js';
import { isTyping } from './shared/pointer.js';
import { listen } from './shared/events.js';
import { tell } from './shared/notices.js';

const rules = document.getElementById('rules');
const form = document.getElementById('rule-form');
const { address } = rules.dataset;
let changed = rules.dataset.changed === 'yes', leaving = false;

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

function go(to) {
  leaving = true;
  leavePage(to);
}

// Asks for something to be done and goes where that leads. No preview takes its place, whatever is typed meanwhile.
let acting = false;
async function act(what, values = new FormData()) {
  if (acting) return;
  acting = true;
  try {
    const { head } = await ask('POST', `${address}?handler=${what}`, { form: values });
    go(head.goesTo);
  } catch (problem) {
    tell(problem.message);
  }
  acting = false;
  keepUp();
}

function valuesOf(pairs) {
  const values = new FormData();
  for (const [name, value] of Object.entries(pairs)) values.append(name, value);
  return values;
}

const step = what => act('History', valuesOf({ do: what, seen: revision() }));

document.addEventListener('click', event => {
  if (event.target.closest('#discard')) go(address);
  const history = event.target.closest('#history [data-do]'), asked = event.target.closest('[data-act]');
  if (history) step(history.dataset.do);
  if (asked) act(asked.dataset.act, asked.dataset.values ? valuesOf(JSON.parse(asked.dataset.values)) : new FormData(form));
});
document.addEventListener('keydown', event => {
  if (isTyping(event.target) || !(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return;
  event.preventDefault();
  step(event.shiftKey ? 'redo' : 'undo');
});

// What was asked for in a card is shown at the right; the card has done its work.
document.addEventListener('htmx:afterRequest', event => {
  if (event.detail.successful) event.target.closest('[popover]')?.hidePopover();
});

// Typed but not applied: nothing is lost without a word.
window.addEventListener('beforeunload', event => {
  if (changed && !leaving) event.preventDefault();
});

// Among many rules, those whose names hold what is typed.
const search = document.getElementById('rule-search');
search?.addEventListener('input', () => {
  const wanted = search.value.trim().toLowerCase();
  for (const item of document.querySelectorAll('.rule-list li')) item.hidden = !item.querySelector('.rule-name').textContent.toLowerCase().includes(wanted);
});
document.querySelector('.rule-item[aria-current]')?.scrollIntoView({ block: 'nearest' });

// Another window changed something: look at it as it is now, unless something is under way here; that is then shown against it.
// What is done here comes back so too, before its answer: that one leads on, and nothing takes its place.
function revision() { return Number(document.getElementById('revision').dataset.revision); }
let newest = 0;
function keepUp() {
  if (newest <= revision() || leaving || acting) return;
  if (!changed) {
    leaving = true;
    leavePage();
  } else {
    // Not where the answers go that may still be on their way.
    document.getElementById('elsewhere').hidden = false;
  }
}
listen(rules.dataset.publication, {
  changed: told => {
    newest = Math.max(newest, told);
    keepUp();
  },
});
