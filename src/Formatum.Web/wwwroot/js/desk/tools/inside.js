// Inside a picture: pan, zoom, turn. The hand's moves go to the server; what it answers is shown.
import { at, boundsOf, boxOf, canvas, frameElement, grips, inspector, make, svg, turnOf } from '../parts.js';
import { addGrip, gripPlaces, moveGrip } from '../grips.js';
import { asker } from '../line.js';
import { cancelDrag, startDrag } from '../drag.js';
import { choose, edit } from '../edits.js';
import { sending } from '../typed.js';
import { setShape, showAnswer } from '../patch.js';
import { state, watch } from '../state.js';

const cornerNames = ['nw', 'ne', 'se', 'sw'];
const place = () => document.querySelector('#inside [data-inside-frame]');
const points = text => text.split(' ').map(pair => pair.split(',').map(Number)).map(([x, y]) => ({ x, y }));

let noBareArea = true, linked = true;
export const options = () => ({ noBareArea });

// ---- What is seen: the picture's edge, its corners, and a round handle to turn it by -----------------------------------------------------

export function showInside(patch = null) {
  const group = place();
  grips.replaceChildren();
  if (!group) return;
  if (patch) {
    group.querySelectorAll('image').forEach(image => image.setAttribute('transform', patch.matrix));
    group.querySelector('.picture-edge').setAttribute('points', patch.edge);
    group.querySelector('.inside-frame').setAttribute('transform', patch.toSpread);
    group.querySelectorAll('.inside-outline, .shape, clipPath > *').forEach(shape => setShape(shape, patch.shape));
    Object.assign(group.dataset, { corners: patch.corners, middle: patch.middle });
  }
  const corners = points(group.dataset.corners), { foot, handle } = lever(corners, group);
  grips.append(make('line', { class: 'turn-line', x1: foot.x, y1: foot.y, x2: handle.x, y2: handle.y }));
  corners.forEach((corner, i) => moveGrip(addGrip(grips, cornerNames[i], 'nwse-resize'), corner));
  moveGrip(addGrip(grips, 'turn', 'grab', 'circle'), handle);
  showEdges();
}

// The frame's own edges and corners, to crop by; over the picture's, where both lie together.
function showEdges() {
  const frame = frameElement(state.selection[0]);
  if (!frame || frame.classList.contains('frame-locked')) return;
  const holder = make('g', { class: 'crop-grips', transform: turnOf(frame) });
  grips.append(holder);
  for (const [name, { x, y, cursor }] of Object.entries(gripPlaces(boxOf(frame)))) {
    const grip = addGrip(holder, name, cursor);
    delete grip.reach.dataset.grip;
    grip.reach.dataset.edge = name;
    moveGrip(grip, { x, y });
  }
}

// The lever to turn by stands on the picture's upper edge; from the middle where that is out of sight.
function lever(corners, group) {
  const along = { x: corners[1].x - corners[0].x, y: corners[1].y - corners[0].y }, down = { x: corners[3].x - corners[0].x, y: corners[3].y - corners[0].y };
  const length = Math.hypot(along.x, along.y) || 1, side = Math.sign(along.x * down.y - along.y * down.x) || 1;
  const above = (point, pixels) => ({ x: point.x + side * along.y / length * pixels / state.scale,
      y: point.y - side * along.x / length * pixels / state.scale });
  const foot = { x: (corners[0].x + corners[1].x) / 2, y: (corners[0].y + corners[1].y) / 2 }, handle = above(foot, 26);
  if (isInSight(handle)) return { foot, handle };
  const [middle] = points(group.dataset.middle);
  return { foot: middle, handle: above(middle, 70) };
}

function isInSight(point) {
  const seen = new DOMPoint(point.x, point.y).matrixTransform(svg.getScreenCTM()), room = canvas.getBoundingClientRect();
  return seen.x > room.left + 8 && seen.x < room.right - 8 && seen.y > room.top + 8 && seen.y < room.bottom - 8;
}

// ---- Pointer, touch and pen -----------------------------------------------------------------------------------------------------------------

const fingers = new Map();

canvas.addEventListener('pointerdown', event => {
  if (!state.inside || event.button !== 0) return;
  event.preventDefault();
  fingers.set(event.pointerId, event);
  if (fingers.size === 2 && event.pointerType === 'touch') {
    cancelDrag();
    startPinch([...fingers.values()]);
    return;
  }
  const grip = event.target.closest('[data-grip]')?.dataset.grip, edge = event.target.closest('[data-edge]')?.dataset.edge;
  if (edge) startDrag(event, { do: 'resize', grip: edge, crops: true });
  else if (grip === 'turn') startDrag(event, { do: 'picture-turn', ...options() });
  else if (grip) startDrag(event, { do: 'picture-corner', grip, ...options() });
  else if (isOver(event)) startDrag(event, { do: 'picture-pan', ...options() });
  else choose(state.selection);
});
for (const kind of ['pointerup', 'pointercancel']) document.addEventListener(kind, event => fingers.delete(event.pointerId), true);

// Over the picture, shown or ghosted, or over its frame.
const isOver = event => event.target.closest('#inside') !== null || isOverFrame(event);
// What was just gone into is not shown from inside yet.
function isOverFrame(event) {
  const frame = frameElement(state.selection[0]);
  if (place() !== null || !frame) return false;
  const { x, y } = at(event), [left, top, width, height] = boundsOf(frame);
  return x >= left && x <= left + width && y >= top && y <= top + height;
}

function startPinch([first, second]) {
  const now = new Map([[first.pointerId, first], [second.pointerId, second]]), seen = state.revision;
  const measure = () => {
    const [p, q] = [...now.values()].map(at);
    return { x: (p.x + q.x) / 2, y: (p.y + q.y) / 2, apart: Math.hypot(p.x - q.x, p.y - q.y) };
  };
  const from = measure(), asking = asker(showAnswer);
  let command = null;
  const onMove = event => {
    if (!now.has(event.pointerId)) return;
    now.set(event.pointerId, event);
    const to = measure();
    asking.ask(command = { do: 'picture-pinch', factor: to.apart / from.apart, fromX: from.x, fromY: from.y, toX: to.x, toY: to.y, ...options() });
  };
  const onUp = event => {
    if (!now.has(event.pointerId)) return;
    document.removeEventListener('pointermove', onMove);
    document.removeEventListener('pointerup', onUp);
    document.removeEventListener('pointercancel', onUp);
    asking.close();
    if (command) edit(command, { seen });
  };
  document.addEventListener('pointermove', onMove);
  document.addEventListener('pointerup', onUp);
  document.addEventListener('pointercancel', onUp);
}

// ---- Wheel and slider: shown at once, told as one edit when the hand rests -------------------------------------------------------------------

const rest = 220;
let wheel = null, sliding = null;

canvas.addEventListener('wheel', event => {
  if (!state.inside) return;
  event.preventDefault();
  const about = at(event);
  wheel ??= { factor: 1, asking: asker(showAnswer), about, seen: state.revision };
  wheel.factor *= Math.exp(-event.deltaY / (event.deltaMode === 0 ? 600 : 12));
  wheel.command = { do: 'picture-zoom', factor: wheel.factor, fromX: wheel.about.x, fromY: wheel.about.y, ...options() };
  wheel.asking.ask(wheel.command);
  clearTimeout(wheel.timer);
  wheel.timer = setTimeout(endWheel, rest);
}, { passive: false });

function endWheel() {
  const { asking, command, seen } = wheel;
  wheel = null;
  asking.close();
  edit(command, { seen });
}

inspector.addEventListener('input', event => {
  if (event.target.id !== 'zoom-slide') return;
  sliding ??= { asking: asker(showAnswer), seen: state.revision };
  sliding.asking.ask({ do: 'picture-slide', slide: event.target.value, ...options() });
});

inspector.addEventListener('change', event => {
  const field = event.target;
  if (field.id === 'zoom-slide') {
    const { asking, seen } = sliding ?? { seen: state.revision };
    sliding = null;
    asking?.close();
    edit({ do: 'picture-slide', slide: field.value, ...options() }, { seen });
  } else if (field.id === 'no-bare-area') noBareArea = field.checked;
  else if (field.id === 'scales-linked') linked = field.checked;
  else if (field.closest('.picture-figures')) {
    sending(field);
    // Outside, the two scales keep what they are to each other.
    edit({ do: 'picture-figures', [field.name]: field.value, linked: true, noBareArea: field.name === 'angle' && noBareArea });
  } else if (field.closest('#picture-figures')) {
    sending(field);
    edit({ do: 'picture-figures', [field.name]: field.value, linked, noBareArea: field.name === 'angle' && noBareArea });
  }
});

inspector.addEventListener('click', event => {
  if (event.target.closest('#go-inside')) choose(state.selection, { inside: true });
  if (event.target.closest('#leave-inside')) choose(state.selection);
});

// Scales that differ are shown unlinked; otherwise as the person left the switch.
function showSwitches() {
  const bare = document.getElementById('no-bare-area'), link = document.getElementById('scales-linked');
  if (bare) bare.checked = noBareArea;
  if (link && !link.checked) linked = false;
  if (link) link.checked = linked;
  else linked = true;
}
watch(['answered'], showSwitches);

export const nudgePicture = (x, y) => edit({ do: 'picture-nudge', stepsX: x, stepsY: y, ...options() });
export const zoomPicture = factor => edit({ do: 'picture-zoom-middle', factor, ...options() });
