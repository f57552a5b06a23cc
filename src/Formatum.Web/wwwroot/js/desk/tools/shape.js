// The points of a frame's outline: shown, dragged, bent, added and taken away. What each change comes to, the server says.
import { at, grips, idOf, inspector, make, setAll, svg } from '../parts.js';
import { edit } from '../edits.js';
import { startDrag } from '../drag.js';
import { change, state, watch } from '../state.js';

let of = '', taken = 0;

const button = () => document.getElementById('shape-points');
export const canShape = () => button() !== null;

function points() {
  const place = text => {
    if (!text) return null;
    const [x, y] = text.split(',').map(Number);
    return { x, y };
  };
  return (button()?.dataset.points ?? '').split(' ').filter(Boolean).map(word => {
    const [point, before, after] = word.split('/');
    return { at: place(point), before: place(before), after: place(after) };
  });
}

export function shape(on) {
  of = state.selection.join();
  taken = 0;
  change({ shaping: on && canShape() });
  showButton();
}

function showButton() {
  button()?.setAttribute('aria-pressed', state.shaping);
  const words = document.getElementById('shape-words');
  if (words) words.hidden = !state.shaping;
}

// The grips stay the elements they are: a double click on one that was swapped between would be none.
function take(index) {
  taken = index;
  for (const shown of grips.querySelectorAll('[data-shown]')) shown.classList.toggle('grip-taken', Number(shown.dataset.shown) === taken);
}
export const takeNext = by => take((taken + by + points().length) % points().length);

function grip(place, index, part) {
  const pixel = 1 / state.scale, half = (part === 'At' ? 4.5 : 3.5) * pixel;
  grips.append(part === 'At'
    ? make('rect', { class: index === taken ? 'grip grip-taken' : 'grip', 'data-shown': index, x: place.x - half, y: place.y - half, width: 2 * half,
        height: 2 * half })
    : make('circle', { class: 'grip', cx: place.x, cy: place.y, r: half }));
  const reach = make('rect', { class: 'grip-reach', 'data-point': index, 'data-part': part });
  setAll(reach, { x: place.x - 12 * pixel, y: place.y - 12 * pixel, width: 24 * pixel, height: 24 * pixel });
  grips.append(reach);
}

export function showPoints() {
  const all = points();
  taken = Math.min(taken, Math.max(0, all.length - 1));
  // Controls first, so that a point lies above one that lies on it.
  all.forEach((point, i) => {
    for (const part of ['before', 'after']) {
      if (!point[part]) continue;
      grips.append(make('line', { class: 'control-line', x1: point.at.x, y1: point.at.y, x2: point[part].x, y2: point[part].y }));
      grip(point[part], i, part === 'before' ? 'Before' : 'After');
    }
  });
  all.forEach((point, i) => grip(point.at, i, 'At'));
}

svg.addEventListener('pointerdown', event => {
  const held = event.target.closest('[data-point]');
  if (!state.shaping || event.button !== 0 || !held) return;
  event.preventDefault();
  take(Number(held.dataset.point));
  startDrag(event, { do: 'shape-move', point: held.dataset.point, part: held.dataset.part });
});

svg.addEventListener('dblclick', event => {
  if (!state.shaping) return;
  const under = document.elementFromPoint(event.clientX, event.clientY), held = under?.closest('[data-point]'), frame = under?.closest('[data-frame]');
  const { x, y } = at(event);
  if (held) edit({ do: 'shape-bend', point: held.dataset.point });
  else if (frame && idOf(frame) === state.selection[0]) edit({ do: 'shape-add', toX: x, toY: y });
});

export const nudgePoint = (x, y) => edit({ do: 'shape-nudge', point: taken, stepsX: x, stepsY: y });
export const changePoint = what => edit({ do: what, point: taken });

inspector.addEventListener('click', event => {
  if (event.target.closest('#shape-points')) shape(!state.shaping);
});

// What the server sends anew has its button up, and may be of another frame.
watch(['answered', 'selection'], () => {
  if (!state.shaping) return;
  const kept = taken;
  if (state.selection.join() === of && canShape()) showButton();
  else shape(false);
  take(kept);
});
