// The gap under the pointer, which can itself be dragged, or typed after a click.
import { asker } from '../line.js';
import { at, canvas, make, showCard, svg } from '../parts.js';
import { edit } from '../edits.js';
import { startDrag } from '../drag.js';
import { state, watch } from '../state.js';

const gap = document.getElementById('gap');
const card = document.getElementById('gap-card'), width = document.getElementById('gap-width');
let meant = null, overFrame = false;
const finder = asker(answer => show(answer.gap));

function show(found) {
  gap.replaceChildren();
  if (!found) return;
  const least = 6 / state.scale, narrow = found.upright ? found.width < least : found.height < least;
  // Over a frame, the frame is meant, but where it meets another there is no other place to take hold of their edge.
  if (overFrame && !narrow) return;
  const box = { x: found.x, y: found.y, width: found.width, height: found.height };
  // A gap too narrow to take hold of is held by a wider one.
  if (narrow && found.upright) Object.assign(box, { x: found.x + found.width / 2 - least / 2, width: least });
  if (narrow && !found.upright) Object.assign(box, { y: found.y + found.height / 2 - least / 2, height: least });
  const held = make('rect', { class: 'gap-held', 'data-gap': found.words, ...box });
  held.style.cursor = found.upright ? 'ew-resize' : 'ns-resize';
  const title = make('title', {});
  title.textContent = `${found.words}: drag it; with Alt, wider or narrower; click to type`;
  held.append(title);
  gap.append(held);
}

canvas.addEventListener('pointermove', event => {
  if (event.buttons !== 0 || event.pointerType === 'touch' || state.tool !== 'pick' || state.inside || state.writing !== null) return;
  if (event.target.closest('[data-gap], [data-grip]')) return;
  if (event.target.closest('[data-guide]')) {
    show(null);
    return;
  }
  overFrame = Boolean(event.target.closest('[data-frame]'));
  const { x, y } = at(event);
  finder.ask({ do: 'find-gutter', fromX: x, fromY: y, scale: state.scale });
});
canvas.addEventListener('pointerleave', () => show(null));
watch(['scale', 'tool'], () => show(null));

svg.addEventListener('pointerdown', event => {
  const held = event.target.closest('[data-gap]');
  if (!held || event.button !== 0 || state.tool !== 'pick') return;
  event.preventDefault();
  startDrag(event, { do: 'gutter' }, {
    onClick: command => {
      meant = { ...command, seen: state.revision };
      width.value = held.dataset.gap.replace('gap ', '');
      showCard(card, event, width);
    },
  });
  held.remove();
});

card.querySelector('form').addEventListener('submit', event => {
  event.preventDefault();
  card.hidePopover();
  canvas.focus({ preventScroll: true });
  const { seen, ...command } = meant;
  edit({ ...command, toX: command.fromX, toY: command.fromY, scale: state.scale, gap: width.value }, { seen });
});
