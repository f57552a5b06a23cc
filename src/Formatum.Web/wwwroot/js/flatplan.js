// The flatplan: pages are chosen and dragged to another place; what that comes to, the server says.
import { ask, Problem } from './shared/http.js';
import { leavePage } from './shared/leave.js';
import { followPointer, isTyping } from './shared/pointer.js';
import { listen } from './shared/events.js';
import { tell } from './shared/notices.js';

const plan = document.getElementById('flatplan');
const sheet = document.getElementById('plan-sheet');
const words = document.getElementById('plan-words');
const address = plan.dataset.address;
const revision = () => Number(document.getElementById('revision').dataset.revision);
const pages = () => [...sheet.querySelectorAll('.plan-page')];
const numberOf = page => Number(page.dataset.page);
const inOrder = () => pages().sort((p, q) => numberOf(p) - numberOf(q));
const chosen = () => inOrder().filter(page => page.getAttribute('aria-pressed') === 'true').map(numberOf);
let newest = 0, last = null, steps = Promise.resolve(), open = 0;

const show = text => window.htmx.swap(sheet, text, { swapStyle: 'innerHTML', settleDelay: 0 });

// Steps go one after the other, each begun at the revision that is shown; after one that is refused the plan shows how things stand.
function inTurn(work) {
  open++;
  plan.setAttribute('aria-busy', 'true');
  steps = steps.then(work).catch(async problem => {
    if (!(problem instanceof Problem)) throw problem;
    tell(problem.message);
    await load().catch(() => {});
  }).finally(() => {
    open--;
    if (open === 0) plan.removeAttribute('aria-busy');
    if (open === 0 && newest > revision()) inTurn(load);
  });
  return steps;
}

const load = async () => {
  const asked = newest;
  show((await ask('GET', `${address}?handler=Sheet&chosen=${chosen().join(',')}`)).text);
  tellChosen();
  // A server that lags behind what it told of is not asked for ever.
  if (revision() < asked) newest = revision();
};

function act(values) {
  const seen = revision();
  return inTurn(async () => {
    const form = new FormData();
    for (const [name, value] of Object.entries({ before: 0, count: 0, pages: chosen().join(','), seen, ...values }))
        if (value !== null && value !== undefined) form.append(name, value);
    const { text } = await ask('POST', address, { form });
    show(text);
    tellChosen();
  });
}

function choose(numbers) {
  for (const page of pages()) page.setAttribute('aria-pressed', numbers.includes(numberOf(page)));
  tellChosen();
}

function tellChosen() {
  const count = chosen().length;
  words.textContent = count === 0 ? 'Click a page to choose it, drag it to another place; double-click opens it.' : count === 1 ? '1 page chosen'
      : `${count} pages chosen`;
  for (const button of plan.querySelectorAll('[data-pages="duplicate"], [data-pages="remove"], [data-base], #make-master-like')) button.disabled = count === 0;
  tellLike();
}
// A master made like the pages chosen can take them on.
const like = document.getElementById('make-master-like'), based = document.getElementById('make-master-based');
function tellLike() {
  if (like.disabled) like.checked = false;
  based.disabled = !like.checked;
  if (based.disabled) based.checked = false;
}
like.addEventListener('change', tellLike);

tellChosen();

function pick(page, event) {
  const number = numberOf(page);
  if (event.shiftKey && last !== null) choose(inOrder().map(numberOf).filter(n => n >= Math.min(last, number) && n <= Math.max(last, number)));
  else if (event.ctrlKey || event.metaKey) choose(chosen().includes(number) ? chosen().filter(n => n !== number) : [...chosen(), number]);
  else choose([number]);
  if (!event.shiftKey) last = number;
}

sheet.addEventListener('pointerdown', event => {
  const page = event.target.closest('.plan-page');
  if (event.button !== 0) return;
  if (!page) {
    if (!event.target.closest('a, button, .plan-masters')) choose([]);
    return;
  }
  const startX = event.clientX, startY = event.clientY;
  let moving = false, over = null, before = 0;
  const clear = () => over?.classList.remove('goes-before', 'goes-after');
  const onMove = e => {
    if (!moving && Math.hypot(e.clientX - startX, e.clientY - startY) < 6) return;
    if (!moving && page.getAttribute('aria-pressed') !== 'true') choose([numberOf(page)]);
    moving = true;
    plan.classList.add('plan-moving');
    const under = document.elementFromPoint(e.clientX, e.clientY)?.closest('.plan-page');
    if (!under) return;
    clear();
    over = under;
    const box = under.getBoundingClientRect(), after = e.clientX > box.left + box.width / 2;
    under.classList.add(after ? 'goes-after' : 'goes-before');
    before = numberOf(under) + (after ? 1 : 0);
  };
  const onEnd = e => {
    document.removeEventListener('keydown', onKey, true);
    plan.classList.remove('plan-moving');
    clear();
    if (!moving) pick(page, e);
    else if (over && e.type === 'pointerup') act({ do: e.altKey ? 'duplicate' : 'move', before });
  };
  const onKey = e => {
    if (e.key !== 'Escape') return;
    moving = true;
    over = null;
    letGo();
  };
  const letGo = followPointer(document, onMove, onEnd);
  document.addEventListener('keydown', onKey, true);
});

sheet.addEventListener('dblclick', event => {
  const page = event.target.closest('.plan-page');
  if (page) leavePage(page.closest('.plan-spread').querySelector('.plan-folios a').href);
});

const after = () => Math.max(...chosen()) + 1;
const end = () => pages().length + 1;

function run(what) {
  if (what === 'add')
      act({ do: 'add', master: document.getElementById('add-master').value, before: chosen().length > 0 ? Math.min(...chosen()) : end(),
          count: document.getElementById('add-count').value });
  if (what === 'duplicate' && chosen().length > 0) act({ do: 'duplicate', before: after() });
  if (what === 'remove' && chosen().length > 0) askToRemove();
}

// What goes with the pages is said before; blank ones go at once.
const removeCard = document.getElementById('remove-pages-card');
async function askToRemove() {
  const meant = chosen();
  const answer = await ask('GET', `${address}?handler=Removing&pages=${meant.join(',')}`).catch(problem => tell(problem.message) && null);
  if (!answer) return;
  if (!answer.text) {
    act({ do: 'remove', pages: meant.join(',') });
    return;
  }
  document.getElementById('remove-pages-title').textContent = `Remove ${meant.length} ${meant.length === 1 ? 'page' : 'pages'}`;
  document.getElementById('remove-pages-words').textContent = answer.text;
  removeCard.dataset.pages = meant.join(',');
  removeCard.showPopover();
  document.getElementById('remove-pages').focus();
}
document.getElementById('remove-pages').addEventListener('click', () => {
  removeCard.hidePopover();
  act({ do: 'remove', pages: removeCard.dataset.pages });
});

plan.addEventListener('click', event => {
  const what = event.target.closest('[data-pages]')?.dataset.pages;
  if (what) run(what);
  const base = event.target.closest('[data-base]');
  if (base) act({ do: 'base', master: base.dataset.base });
  const history = event.target.closest('#history [data-do]');
  if (history) act({ do: history.dataset.do });
});

plan.addEventListener('submit', event => {
  event.preventDefault();
  const form = event.target;
  form.closest('[popover]').hidePopover();
  act({ do: form.dataset.act, ...Object.fromEntries(new FormData(form)) });
  form.reset();
});

document.addEventListener('keydown', event => {
  if (isTyping(event.target) || event.target.closest('input, [popover]')) return;
  const command = event.ctrlKey || event.metaKey;
  if (command && event.key.toLowerCase() === 'z') {
    event.preventDefault();
    act({ do: event.shiftKey ? 'redo' : 'undo' });
  } else if (command && event.key.toLowerCase() === 'a') {
    event.preventDefault();
    choose(pages().map(numberOf));
  } else if (command && event.key.toLowerCase() === 'd') {
    event.preventDefault();
    run('duplicate');
  } else if (event.key === 'Delete') run('remove');
  else if (event.key === 'Escape') choose([]);
  else if (event.key === ' ' || event.key === 'Enter') {
    const page = event.target.closest('.plan-page');
    if (!page) return;
    event.preventDefault();
    pick(page, event);
  } else if (event.altKey && (event.key === 'ArrowLeft' || event.key === 'ArrowRight') && chosen().length > 0) {
    // One place on, or back.
    event.preventDefault();
    const numbers = chosen();
    const before = event.key === 'ArrowLeft' ? numbers[0] - 1 : numbers[numbers.length - 1] + 2;
    if (before >= 1 && before <= end()) act({ do: 'move', before });
  }
});

document.getElementById('plan-size').addEventListener('input', event => sheet.style.setProperty('--plan-height', `${event.target.value}px`));

listen(plan.dataset.publication, {
  changed: revisionTold => {
    newest = Math.max(newest, revisionTold);
    if (open === 0 && newest > revision()) inTurn(load);
  },
});
