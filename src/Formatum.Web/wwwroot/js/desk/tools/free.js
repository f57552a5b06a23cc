// A free outline: a click for a corner, a drag for a bend, one stroke around the whole; the first point or Enter closes it.
import { at, canvas, make, underWay } from '../parts.js';
import { edit } from '../edits.js';
import { followPointer } from '../../shared/pointer.js';
import { state, watch } from '../state.js';
import { takeTool } from './draw.js';

// A first drag longer than this, in screen pixels, is a stroke.
const leastStroke = 24, mostPoints = 4000;

let points = [];

export const isDrawingFree = () => state.tool === 'free' && points.length > 0;

function pathOf() {
  return points.map((point, i) => {
    const before = points[i - 1];
    if (i === 0) return `M${point.x} ${point.y}`;
    if (!before.after && !point.before) return `L${point.x} ${point.y}`;
    const first = before.after ?? before, second = point.before ?? point;
    return `C${first.x} ${first.y} ${second.x} ${second.y} ${point.x} ${point.y}`;
  }).join('');
}

function show(pointer = null) {
  const half = 3.5 / state.scale;
  underWay.replaceChildren(make('path', { class: 'ghost', d: pathOf() + (pointer ? `L${pointer.x} ${pointer.y}` : '') }),
    ...points.map(point => make('rect', { class: 'grip', x: point.x - half, y: point.y - half, width: 2 * half, height: 2 * half })));
}

export async function closeFree() {
  const text = points.map(p => p.before ? `${p.x},${p.y}/${p.before.x},${p.before.y}/${p.after.x},${p.after.y}` : `${p.x},${p.y}`).join(' ');
  takeTool('pick');
  await edit({ do: 'draw-free', points: text });
}

async function closeStroke(stroke) {
  const step = Math.ceil(stroke.length / mostPoints);
  takeTool('pick');
  await edit({ do: 'draw-stroke', points: stroke.filter((_, i) => i % step === 0).map(p => `${p.x},${p.y}`).join(' '), scale: state.scale });
}

canvas.addEventListener('pointerdown', event => {
  if (state.tool !== 'free' || event.button !== 0) return;
  event.preventDefault();
  const point = at(event), first = points[0];
  if (points.length > 2 && Math.hypot(point.x - first.x, point.y - first.y) * state.scale < 8) {
    closeFree();
    return;
  }
  points.push(point);
  canvas.setPointerCapture(event.pointerId);
  if (points.length === 1) followStroke(point);
  else followBend(point);
  show();
});

function followBend(point) {
  followPointer(canvas, e => {
    const pulled = at(e);
    if (Math.hypot(pulled.x - point.x, pulled.y - point.y) * state.scale < 4) return;
    Object.assign(point, { after: pulled, before: { x: 2 * point.x - pulled.x, y: 2 * point.y - pulled.y } });
    show();
  });
}

function followStroke(start) {
  const stroke = [start];
  let way = 0;
  followPointer(canvas, event => {
    for (const e of event.getCoalescedEvents?.() ?? [event]) {
      const here = at(e), last = stroke.at(-1);
      way += Math.hypot(here.x - last.x, here.y - last.y) * state.scale;
      stroke.push(here);
    }
    if (way >= leastStroke) underWay.replaceChildren(make('path', { class: 'ghost', d: `M${stroke.map(p => `${p.x} ${p.y}`).join('L')}` }));
  }, event => {
    if (event.type === 'pointerup' && way >= leastStroke) closeStroke(stroke);
  });
}

canvas.addEventListener('pointermove', event => {
  if (isDrawingFree() && event.buttons === 0) show(at(event));
});

function giveUp() {
  if (points.length === 0) return;
  points = [];
  underWay.replaceChildren();
}
watch(['tool'], () => { if (state.tool !== 'free') giveUp(); });
watch(['spread'], giveUp);
