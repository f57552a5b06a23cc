// A drag: what it would come to is asked on the way, and made when the pointer is let go.
import { asker } from './line.js';
import { edit, refresh } from './edits.js';
import { hideWords, showAnswer } from './patch.js';
import { isAnswered, waitsFor } from './away.js';
import { boxBetween, lateBoxes } from './late.js';
import { canvas, desk, follower, make, marks, svg, underWay } from './parts.js';
import { state } from './state.js';

// Where the browser tells of the pointer at once, and not only when the next picture of the screen is due, the answer makes it into that picture.
const pointerMoves = 'onpointerrawupdate' in window ? 'pointerrawupdate' : 'pointermove';
const leastWay = 3;

const snapButton = document.getElementById('snapping');
const snaps = () => snapButton.getAttribute('aria-pressed') === 'true';
snapButton.addEventListener('click', () => snapButton.setAttribute('aria-pressed', !snaps()));

let current = null;

// Gives up what is being dragged: everything goes back to where it was.
export const cancelDrag = () => current?.cancel();

// What was drawn stays in sight until it is there, whatever is drawn next; as a bare box where nobody has told yet how it will look.
function keepShown({ do: what, fromX, fromY, toX, toY }) {
  const kept = make('g', { class: 'coming' });
  kept.append(...underWay.cloneNode(true).children);
  if (!kept.firstChild && what === 'draw') kept.append(boxBetween(fromX, fromY, toX, toY));
  underWay.before(kept);
  return kept;
}

// Follows the pointer from here on. What only was a click, without any way gone, is told to onClick; that something is made, to onMake as soon as the pointer
// is let go; what was made, to onDone.
export function startDrag(event, command, { onClick, onMake, onDone } = {}) {
  const following = follower(), from = following.at(event), startX = event.clientX, startY = event.clientY, seen = state.revision;
  let moved = false, last = null, pointer = event;
  const late = lateBoxes(command.do);
  const asking = asker(answer => {
    showAnswer(answer, pointer);
    late.isAnswered();
  });
  const commandAt = e => {
    const to = following.at(e);
    return {
      ...command, fromX: from.x, fromY: from.y, toX: to.x, toY: to.y,
      even: e.shiftKey, fromCentre: e.altKey, withPicture: e.ctrlKey || e.metaKey, scale: snaps() ? state.scale : 0,
    };
  };
  const onMove = e => {
    if (e.pointerId !== event.pointerId) return;
    if (!moved && Math.hypot(e.clientX - startX, e.clientY - startY) < leastWay) return;
    moved = true;
    desk.classList.add('is-dragging');
    pointer = e;
    asking.ask(last = commandAt(e));
    late.follow(last);
    waitsFor(() => ({ x: pointer.clientX + 16, y: pointer.clientY + 44 }));
  };
  const end = async (e, commit) => {
    if (e.pointerId !== undefined && e.pointerId !== event.pointerId) return;
    letGo();
    if (moved && last && commit) {
      onMake?.();
      const asked = commandAt(e), shown = keepShown(asked), outcome = await edit(asked, { seen });
      shown.remove();
      onDone?.(outcome);
    } else if (moved && last) {
      await refresh();
    } else if (commit) {
      onClick?.(commandAt(e));
    }
    // What is being typed, or is dragged by now, has its own drawing there.
    if (state.writing === null && !current) {
      underWay.replaceChildren();
      marks.replaceChildren();
    }
  };
  const onUp = e => end(e, true);
  const onCancel = e => end(e, false);
  const onKey = e => {
    if (e.key !== 'Escape') return;
    e.stopPropagation();
    end({}, false);
  };
  const letGo = () => {
    svg.removeEventListener(pointerMoves, onMove);
    svg.removeEventListener('pointerup', onUp);
    svg.removeEventListener('pointercancel', onCancel);
    document.removeEventListener('keydown', onKey, true);
    asking.close();
    following.close();
    late.close();
    isAnswered();
    hideWords();
    desk.classList.remove('is-dragging');
    current = null;
  };
  svg.setPointerCapture(event.pointerId);
  // What was taken hold of has the keys, whatever had them before.
  if (!canvas.contains(document.activeElement)) canvas.focus({ preventScroll: true });
  current = { cancel: () => end({}, false) };
  svg.addEventListener(pointerMoves, onMove);
  svg.addEventListener('pointerup', onUp);
  svg.addEventListener('pointercancel', onCancel);
  document.addEventListener('keydown', onKey, true);
}
