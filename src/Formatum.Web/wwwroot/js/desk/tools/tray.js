// The tray: pictures that wait. One of them is in hand, is shown in the frame under the pointer as the server fits it, and is placed by a click.
import { asker } from '../line.js';
import { canvas, idOf, publication, tray, underWay } from '../parts.js';
import { edit } from '../edits.js';
import { followPointer } from '../../shared/pointer.js';
import { hideWords, showWords } from '../patch.js';
import { openPour } from './pour.js';
import { startDrag } from '../drag.js';
import { state, watch } from '../state.js';

const remembered = `tray-hand-${publication}`;
let hand = Number(sessionStorage.getItem(remembered)) || null;
let carried = null, over = null, pointer = null;

const waiting = () => [...tray.querySelectorAll('[data-tray]')].map(item => Number(item.dataset.tray));
const itemOf = image => tray.querySelector(`[data-tray="${image}"]`);
export const hasTray = () => waiting().length > 0;
export const hasHand = () => hand !== null;

// Takes a picture up; null puts the tray down. What waits in it stays.
export function takeUp(image) {
  hand = image !== null && waiting().includes(image) ? image : null;
  sessionStorage.setItem(remembered, hand ?? '');
  canvas.classList.toggle('has-hand', hand !== null);
  leaveFrame();
  dropCarried();
  show();
}

export const toggleHand = () => takeUp(hand === null ? waiting()[0] ?? null : null);

export function stepHand(by) {
  const all = waiting(), index = all.indexOf(hand);
  takeUp(all[(index + by + all.length) % all.length] ?? null);
  itemOf(hand)?.scrollIntoView({ block: 'nearest' });
}

function show() {
  for (const item of tray.querySelectorAll('[data-tray]')) item.setAttribute('aria-pressed', Number(item.dataset.tray) === hand);
  const button = document.getElementById('tray-hand');
  if (!button) return;
  button.setAttribute('aria-pressed', hand !== null);
  button.textContent = hand === null ? 'Take up' : 'Put down';
}

function dropCarried() {
  carried?.remove();
  carried = null;
}

// ---- The picture in hand over the spread ------------------------------------------------------------------------------------------------

const preview = asker(answer => {
  if (over === null || hand === null) return;
  underWay.innerHTML = answer.preview ?? '';
  showWords(answer.words, pointer);
});

function leaveFrame() {
  over = null;
  if (state.writing === null && (hand !== null || underWay.querySelector('.tray-preview'))) underWay.replaceChildren();
  hideWords();
}

canvas.addEventListener('pointermove', event => {
  if (hand === null || event.buttons !== 0) return;
  const frame = event.target.closest('[data-frame]');
  const id = frame && !frame.classList.contains('frame-text') ? idOf(frame) : null;
  pointer = event;
  carry(event, id !== null);
  if (id === over) return;
  leaveFrame();
  over = id;
  if (over !== null) preview.ask({ do: 'tray-preview', frames: `${over}`, image: hand });
});

function carry(event, hidden) {
  if (!carried) {
    carried = itemOf(hand)?.querySelector('img').cloneNode() ?? null;
    if (!carried) return;
    carried.className = 'carried';
    document.body.append(carried);
  }
  carried.style.left = `${event.clientX + 10}px`;
  carried.style.top = `${event.clientY + 10}px`;
  carried.hidden = hidden;
}

canvas.addEventListener('pointerleave', () => {
  if (hand === null) return;
  leaveFrame();
  dropCarried();
});

// The next one comes to hand at once; where the one before could not be placed, it is still in the tray.
function nextAfter(image) {
  const all = waiting();
  return all[all.indexOf(image) + 1] ?? all.find(other => other !== image) ?? null;
}

function place(command) {
  const image = hand;
  takeUp(nextAfter(image));
  return edit({ keep: 'none', image, ...command });
}

canvas.addEventListener('pointerdown', event => {
  if (hand === null || event.button !== 0 || state.inside) return;
  event.stopPropagation();
  event.preventDefault();
  const frame = event.target.closest('[data-frame]'), image = hand;
  if (frame && !frame.classList.contains('frame-text')) {
    place({ do: 'tray-place', frames: idOf(frame) });
    return;
  }
  dropCarried();
  const next = nextAfter(image);
  startDrag(event, { do: 'set-down', image, fromTray: true, keep: 'none' }, {
    onClick: command => place({ ...command, fromTray: true }),
    onMake: () => takeUp(next),
  });
}, true);

// ---- The tray itself -----------------------------------------------------------------------------------------------------------------------

tray.addEventListener('click', event => {
  const item = event.target.closest('[data-tray]');
  if (item && !item.dataset.moved) takeUp(Number(item.dataset.tray) === hand ? null : Number(item.dataset.tray));
  if (event.target.closest('#tray-hand')) toggleHand();
  if (event.target.closest('#pour')) {
    takeUp(null);
    openPour();
  }
});

tray.addEventListener('pointerdown', event => {
  const item = event.target.closest('[data-tray]');
  if (!item || event.button !== 0) return;
  const startX = event.clientX, startY = event.clientY;
  let target = null;
  const mark = next => {
    target?.classList.remove('goes-before');
    target = next;
    target?.classList.add('goes-before');
  };
  followPointer(document, e => {
    if (!item.dataset.moved && Math.hypot(e.clientX - startX, e.clientY - startY) < 6) return;
    item.dataset.moved = 'yes';
    mark(document.elementFromPoint(e.clientX, e.clientY)?.closest('[data-tray]') ?? null);
  }, e => {
    const before = target?.dataset.tray, inTray = document.elementFromPoint(e.clientX ?? 0, e.clientY ?? 0)?.closest('#tray'), { moved } = item.dataset;
    mark(null);
    setTimeout(() => delete item.dataset.moved);
    if (e.type === 'pointerup' && moved && inTray && before !== item.dataset.tray) edit({ do: 'tray-reorder', images: item.dataset.tray, before });
  });
});

tray.addEventListener('keydown', event => {
  const item = event.target.closest('[data-tray]');
  if (!item) return;
  const all = waiting(), image = Number(item.dataset.tray), index = all.indexOf(image);
  if (event.key === 'Delete') {
    event.preventDefault();
    event.stopPropagation();
    edit({ do: 'tray-remove', images: String(image) }).then(() => (itemOf(all[index + 1]) ?? itemOf(all[index - 1]))?.focus());
  }
  if (event.altKey && (event.key === 'ArrowLeft' || event.key === 'ArrowRight')) {
    event.preventDefault();
    event.stopPropagation();
    if (event.key === 'ArrowLeft' && index === 0) return;
    const before = event.key === 'ArrowLeft' ? all[index - 1] : all[index + 2];
    edit({ do: 'tray-reorder', images: String(image), before }).then(() => itemOf(image)?.focus());
  }
});

// The server sends the tray anew whenever it changed.
watch(['answered'], () => {
  if (hand !== null && !waiting().includes(hand)) takeUp(null);
  else show();
});

takeUp(hand);
