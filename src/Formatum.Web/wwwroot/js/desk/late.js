// Where the line takes long, or nobody answers, the boxes of what is dragged follow the pointer by themselves: plainly, for no rule of how things come to lie
// is known here.
import { boxOf, frameElement, make, turnOf, underWay } from './parts.js';
import { state } from './state.js';

const after = 250;
const drawn = new Set(['draw', 'set-down', 'grid']);

const rect = attributes => make('rect', { class: 'ghost', ...attributes });

export const boxBetween = (fromX, fromY, toX, toY) => rect({ x: Math.min(fromX, toX), y: Math.min(fromY, toY), width: Math.abs(toX - fromX),
    height: Math.abs(toY - fromY) });

// Of a drag that begins now.
export function lateBoxes(what) {
  const boxes = what === 'move' ? state.selection.map(frameElement).filter(Boolean).map(frame => {
    const [x, y, width, height] = boxOf(frame);
    return { x, y, width, height, transform: turnOf(frame) };
  }) : [];
  const holder = make('g', { class: 'late' });
  let answeredAt = performance.now(), timer = null, newest = null;

  const isLate = () => performance.now() - answeredAt >= after;

  function show() {
    const { fromX, fromY, toX, toY } = newest;
    if (drawn.has(what)) {
      holder.replaceChildren(boxBetween(fromX, fromY, toX, toY));
    } else {
      holder.replaceChildren(...boxes.map(rect));
      holder.setAttribute('transform', `translate(${toX - fromX} ${toY - fromY})`);
    }
    underWay.append(holder);
  }

  return {
    follow(command) {
      newest = command;
      if (isLate()) show();
      else timer ??= setTimeout(() => {
        timer = null;
        if (isLate()) show();
      }, after);
    },
    isAnswered() {
      answeredAt = performance.now();
      holder.remove();
    },
    close() { clearTimeout(timer); },
  };
}
