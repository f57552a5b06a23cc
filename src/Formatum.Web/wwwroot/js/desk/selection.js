// What a pointer on the spread chooses, moves and sizes.
import { choose, edit, isComingAt } from './edits.js';
import { startDrag } from './drag.js';
import { at, boundsOf, canvas, frameElement, frameElements, idOf, make, setAll, svg, underWay, withGroups } from './parts.js';
import { followPointer } from '../shared/pointer.js';
import { state } from './state.js';
import { gripsCrop, pivot } from './inspector.js';
import { hideWords, showWords } from './patch.js';
import { dragOfTool } from './tools/draw.js';
import { write } from './writing/text.js';

// The frames under the pointer, topmost first.
function stackAt(event) {
  const there = document.elementsFromPoint(event.clientX, event.clientY).map(element => element.closest('[data-frame]')).filter(Boolean);
  return [...new Set(there)].map(idOf);
}

svg.addEventListener('pointerdown', event => {
  if (event.button !== 0 || state.inside) return;
  if (state.tool === 'pick' && !event.target.closest('[data-frame]') && isComingAt(at(event))) {
    dragComing(event);
    return;
  }
  if (state.tool !== 'pick') {
    const made = dragOfTool(state.tool);
    if (!made) return;
    event.preventDefault();
    startDrag(event, made.command, made);
    return;
  }
  if (event.target.closest('[data-guide], [data-gap], [data-point]')) return;
  const grip = event.target.closest('[data-grip]');
  if (grip && state.selection.length > 0) {
    event.preventDefault();
    startDrag(event, grip.dataset.grip === 'turn' ? { do: 'turn', ...pivot() } : { do: 'resize', grip: grip.dataset.grip, crops: gripsCrop() });
    return;
  }
  const frame = event.target.closest('[data-frame]');
  if (frame) pressFrame(event, frame);
});

// What is just being made can be taken hold of before it is there: it is moved once it is.
function dragComing(event) {
  event.preventDefault();
  event.stopPropagation();
  const from = at(event);
  let moved = false;
  followPointer(canvas, e => { moved ||= Math.hypot(e.clientX - event.clientX, e.clientY - event.clientY) > 3; }, e => {
    const to = at(e);
    if (moved && e.type === 'pointerup') edit({ do: 'move', fromX: from.x, fromY: from.y, toX: to.x, toY: to.y, scale: state.scale });
  });
}

function pressFrame(event, frame) {
  const id = idOf(frame), chosen = state.selection, was = chosen.includes(id);
  event.preventDefault();
  if (event.shiftKey) {
    // With its group, both ways. One that is dragged goes straight, and stays chosen.
    const group = withGroups([id]);
    if (!was) choose([...chosen, id]);
    startDrag(event, { do: 'move' }, { onClick: () => { if (was) choose(chosen.filter(other => !group.includes(other))); } });
    return;
  }
  if ((event.ctrlKey || event.metaKey) && stackAt(event).some(other => chosen.includes(other))) {
    // A click takes the frame beneath the one that is chosen; from the lowest, back to the topmost. A drag moves what is chosen.
    startDrag(event, { do: 'move' }, { onClick: () => chooseBeneath(stackAt(event)) });
    return;
  }
  if (!was) choose([id]);
  frame.focus({ preventScroll: true });
  // A click on one of several chooses it alone; on one of a group, first its group and then itself. A drag moves them all.
  const again = was && chosen.length > 1 ? () => chooseNarrower(id, chosen) : null;
  if (frame.classList.contains('frame-locked')) again?.();
  else startDrag(event, { do: 'move' }, { onClick: again });
}

// Before a grip is taken hold of, it says what it would do with the picture.
let isOverGrip = false;
canvas.addEventListener('pointermove', event => {
  if (event.buttons !== 0 || state.tool !== 'pick') return;
  const grip = event.target.closest('[data-grip], [data-edge]'), { grip: name, edge } = grip?.dataset ?? {};
  const says = edge || (name && name !== 'turn' && !state.inside && state.selection.some(id => frameElement(id)?.querySelector('image')));
  if (says) showWords(edge || gripsCrop() ? 'crops the picture' : 'refits the picture', event);
  else if (isOverGrip) hideWords();
  isOverGrip = Boolean(says);
});
canvas.addEventListener('pointerleave', () => {
  if (isOverGrip) hideWords();
  isOverGrip = false;
});

function chooseBeneath(stack) {
  choose([stack[(stack.findIndex(other => state.selection.includes(other)) + 1) % stack.length]]);
}

const alike = (a, b) => a.length === b.length && a.every(id => b.includes(id));

export function chooseNarrower(id, chosen) {
  choose([id], { alone: alike(withGroups([id]), chosen) });
}

// A frame dragged over the table by the pointer, to choose what it meets.
canvas.addEventListener('pointerdown', event => {
  if (event.button !== 0 || event.pointerType === 'touch' || state.inside || state.tool !== 'pick') return;
  if (event.target.closest('[data-frame], [data-grip], [data-point], [data-guide], [data-gap]')) return;
  const from = at(event), before = event.shiftKey ? state.selection : [], box = make('rect', { class: 'marquee' });
  let met = null;
  canvas.setPointerCapture(event.pointerId);
  followPointer(canvas, e => {
    const to = at(e), x = Math.min(from.x, to.x), y = Math.min(from.y, to.y), width = Math.abs(to.x - from.x), height = Math.abs(to.y - from.y);
    if (!met && Math.max(width, height) * state.scale < 4) return;
    underWay.replaceChildren(box);
    setAll(box, { x, y, width, height });
    met = frameElements().filter(frame => {
      const [fx, fy, fw, fh] = boundsOf(frame);
      return fx < x + width && x < fx + fw && fy < y + height && y < fy + fh;
    }).map(idOf);
  }, e => {
    if (met) underWay.replaceChildren();
    if (e.type === 'pointercancel') return;
    const next = [...new Set([...before, ...(met ?? [])])];
    if (next.join() !== state.selection.join()) choose(next);
  });
});

svg.addEventListener('dblclick', event => {
  if (state.shaping || state.inside) return;
  // The pointer was captured by the drawing, so the event does not say what lies under it.
  const frame = document.elementFromPoint(event.clientX, event.clientY)?.closest('[data-frame]');
  if (frame) goInto(frame, event);
});

// Goes into the text of a frame, or into its picture.
export function goInto(frame, pointer = null) {
  if (frame.classList.contains('frame-text')) write(idOf(frame), { pointer });
  else if (!frame.classList.contains('frame-empty')) choose([idOf(frame)], { inside: true });
}

// Beside what is chosen, a little lower.
export const duplicate = () => edit({ do: 'repeat', columns: 2, rows: 1, byX: '12pt', byY: '12pt' });

export const nudge = (x, y) => edit({ do: 'nudge', stepsX: x, stepsY: y });
