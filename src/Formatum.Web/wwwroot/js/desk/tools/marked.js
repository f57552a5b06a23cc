// Pictures that are marked together in the contact sheet or in the tray: with Shift from the last one on, with Ctrl one by one.
import { edit } from '../edits.js';
import { canvas, sheet, tray } from '../parts.js';
import { offerArrivals } from './arrivals.js';
import { inSight } from './place.js';
import { watch } from '../state.js';

const bar = document.getElementById('marked-bar');
const lists = [
  { of: sheet, items: '.thumb', id: item => item.dataset.image },
  { of: tray, items: '[data-tray]', id: item => item.dataset.tray },
];

// Where something is marked, in order, and where the last click was.
let list = null, last = null;
let marked = [];

function show() {
  for (const { of, items, id } of lists) {
    const here = list?.of === of;
    for (const item of of.querySelectorAll(items)) item.classList.toggle('is-marked', here && marked.includes(id(item)));
  }
  bar.hidden = marked.length === 0;
  if (bar.hidden) return;
  document.getElementById('marked-words').textContent = marked.length === 1 ? '1 picture' : `${marked.length} pictures`;
  for (const button of bar.querySelectorAll('[data-marked-in]')) button.hidden = button.dataset.markedIn !== (list.of === sheet ? 'sheet' : 'tray');
}

function unmark() {
  [list, last, marked] = [null, null, []];
  show();
}

function mark(where, id, through) {
  const all = [...where.of.querySelectorAll(where.items)].map(where.id);
  if (list !== where) [list, last, marked] = [where, null, []];
  const from = all.indexOf(last), to = all.indexOf(id);
  const meant = through && from >= 0 ? all.slice(Math.min(from, to), Math.max(from, to) + 1) : [id];
  const wanted = new Set(meant.length === 1 && !through && marked.includes(id) ? marked.filter(one => one !== id) : [...marked, ...meant]);
  marked = all.filter(one => wanted.has(one));
  last = id;
  show();
}

for (const where of lists) {
  where.of.addEventListener('click', event => {
    const item = event.target.closest(where.items);
    if (!item) return;
    if (!event.shiftKey && !event.ctrlKey && !event.metaKey) {
      unmark();
      return;
    }
    event.preventDefault();
    event.stopPropagation();
    mark(where, where.id(item), event.shiftKey);
  }, true);
  where.of.addEventListener('keydown', event => {
    if (marked.length === 0 || list !== where) return;
    if (event.key === 'Escape') unmark();
    else if (event.key === 'Delete' && where.of === tray) takeOut();
    else return;
    event.preventDefault();
    event.stopPropagation();
  }, true);
}

function takeOut() {
  edit({ do: 'tray-remove', images: marked.join(',') });
  unmark();
}

bar.addEventListener('click', event => {
  const button = event.target.closest('button'), meant = marked;
  if (!button) return;
  if (button.id === 'marked-out') takeOut();
  else unmark();
  if (button.id === 'marked-tray') edit({ do: 'tray-add', images: meant.join(',') });
  if (button.id === 'marked-place') offerArrivals(meant, inSight());
  if (button.id === 'marked-none') canvas.focus({ preventScroll: true });
});

// What is no longer there is marked no longer.
watch(['answered'], () => {
  if (!list) return;
  const there = new Set([...list.of.querySelectorAll(list.items)].map(list.id));
  marked = marked.filter(id => there.has(id));
  show();
});
