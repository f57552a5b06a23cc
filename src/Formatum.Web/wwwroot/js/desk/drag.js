// A drag: what it would come to is asked on the way, and made when the pointer is let go.
import { asker } from './line.js';
import { edit, refresh } from './edits.js';
import { hideWords, showAnswer } from './patch.js';
import { desk, follower, marks, svg, underWay } from './parts.js';
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

// Follows the pointer from here on. What only was a click, without any way gone, is told to onClick; what was made, to onDone.
export function startDrag(event, command, { onClick, onDone } = {}) {
  const following = follower(), from = following.at(event), startX = event.clientX, startY = event.clientY, seen = state.revision;
  let moved = false, last = null, pointer = event;
  const asking = asker(answer => showAnswer(answer, pointer));
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
  };
  const end = async (e, commit) => {
    if (e.pointerId !== undefined && e.pointerId !== event.pointerId) return;
    letGo();
    if (moved && last && commit) {
      const outcome = await edit(commandAt(e), { seen });
      if (outcome.done) onDone?.(outcome.done);
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
    hideWords();
    desk.classList.remove('is-dragging');
    current = null;
  };
  svg.setPointerCapture(event.pointerId);
  current = { cancel: () => end({}, false) };
  svg.addEventListener(pointerMoves, onMove);
  svg.addEventListener('pointerup', onUp);
  svg.addEventListener('pointercancel', onCancel);
  document.addEventListener('keydown', onKey, true);
}
