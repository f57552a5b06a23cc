// What is chosen, with the grips to take hold of it by. They are made once for a choice, and only moved while it is dragged.
import { boundsOf, boxOf, frameElement, grips, make, setAll, turnOf } from './parts.js';
import { state, watch } from './state.js';
import { showInside } from './tools/inside.js';
import { showPoints } from './tools/shape.js';

const places = { nw: [0, 0], n: [0.5, 0], ne: [1, 0], e: [1, 0.5], se: [1, 1], s: [0.5, 1], sw: [0, 1], w: [0, 0.5] };
const cursors = { nw: 'nwse', n: 'ns', ne: 'nesw', e: 'ew', se: 'nwse', s: 'ns', sw: 'nesw', w: 'ew' };

// Where the grips of a box lie, each with its cursor.
export const gripPlaces = ([x, y, width, height]) => Object.fromEntries(Object.entries(places)
    .map(([name, [fx, fy]]) => [name, { x: x + fx * width, y: y + fy * height, cursor: `${cursors[name]}-resize` }]));

let shown = null;

// Draws them anew, where what is drawn is of something else.
export function showGrips() {
  if (state.inside) {
    shown = null;
    showInside();
    return;
  }
  const frames = state.selection.map(frameElement).filter(Boolean);
  const held = frames.length > 0 && !frames.some(frame => frame.classList.contains('frame-locked'));
  if (state.shaping && held) {
    shown = null;
    grips.replaceChildren();
    showPoints();
    return;
  }
  const key = `${frames.length} ${held} ${state.shaping}`;
  if (shown?.key !== key || !shown.parts.every(part => part.isConnected)) shown = build(key, frames.length, held);
  place(frames);
}

function build(key, count, held) {
  grips.replaceChildren();
  const boxes = Array.from({ length: count }, () => make('rect', { class: 'chosen-box' }));
  const holder = make('g', {}), parts = [...boxes, holder];
  const around = count > 1 ? make('rect', { class: 'chosen-around' }) : null;
  const lever = make('line', { class: 'turn-line' });
  if (held && around) holder.append(around);
  const named = {};
  if (held) for (const name of Object.keys(places)) named[name] = addGrip(holder, name, `${cursors[name]}-resize`);
  if (held) {
    holder.append(lever);
    named.turn = addGrip(holder, 'turn', 'grab', 'circle');
  }
  grips.append(...parts);
  return { key, boxes, holder, around, lever, named, parts };
}

function place(frames) {
  if (frames.length === 0) return;
  const { boxes, holder, around, lever, named } = shown;
  frames.forEach((frame, i) => {
    const [x, y, width, height] = boxOf(frame);
    setAll(boxes[i], { x, y, width, height, transform: turnOf(frame) });
  });
  // One frame has its grips along its own sides, several along the box around them all.
  const one = frames.length === 1;
  if (one) holder.setAttribute('transform', turnOf(frames[0]));
  else holder.removeAttribute('transform');
  if (!named.turn) return;
  const all = frames.map(frame => (one ? boxOf(frame) : boundsOf(frame)));
  const left = Math.min(...all.map(b => b[0])), top = Math.min(...all.map(b => b[1]));
  const right = Math.max(...all.map(b => b[0] + b[2])), bottom = Math.max(...all.map(b => b[1] + b[3]));
  if (around) setAll(around, { x: left, y: top, width: right - left, height: bottom - top });
  for (const [name, [fx, fy]] of Object.entries(places)) moveGrip(named[name], { x: left + fx * (right - left), y: top + fy * (bottom - top) });
  const middle = (left + right) / 2, above = top - 24 / state.scale;
  setAll(lever, { x1: middle, y1: top, x2: middle, y2: above });
  moveGrip(named.turn, { x: middle, y: above });
}

// A small square to see, and around it a larger one to take hold of.
export function addGrip(holder, name, cursor, shape = 'rect') {
  const seen = make(shape, { class: 'grip' }), reach = make('rect', { class: 'grip-reach', 'data-grip': name });
  reach.style.cursor = cursor;
  holder.append(seen, reach);
  return { seen, reach };
}

export function moveGrip({ seen, reach }, { x, y }, half = 4.5) {
  const pixel = 1 / state.scale;
  if (seen.localName === 'circle') setAll(seen, { cx: x, cy: y, r: (half + 1.5) * pixel });
  else setAll(seen, { x: x - half * pixel, y: y - half * pixel, width: 2 * half * pixel, height: 2 * half * pixel });
  setAll(reach, { x: x - 12 * pixel, y: y - 12 * pixel, width: 24 * pixel, height: 24 * pixel });
}

watch(['selection', 'inside', 'shaping', 'scale', 'answered'], showGrips);
