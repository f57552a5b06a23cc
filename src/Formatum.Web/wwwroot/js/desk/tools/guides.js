// Guides: dragged from the rulers, moved, typed, taken away.
import { canvas, showCard, svg } from '../parts.js';
import { edit } from '../edits.js';
import { startDrag } from '../drag.js';
import { state } from '../state.js';

const card = document.getElementById('guide-card'), field = document.getElementById('guide-at');
let meant = null;

for (const [id, upright] of [['ruler-top', false], ['ruler-left', true]]) {
  document.getElementById(id).addEventListener('pointerdown', event => {
    if (event.button !== 0) return;
    event.preventDefault();
    startDrag(event, { do: 'guide', upright, acrossSpread: !upright });
  });
}

// With a tool in hand a guide is only something to snap to.
svg.addEventListener('pointerdown', event => {
  const guide = event.target.closest('[data-guide]');
  if (!guide || event.button !== 0 || state.tool !== 'pick' || state.inside) return;
  event.preventDefault();
  const { guide: named, upright, words } = guide.dataset;
  const command = { do: 'guide', guide: named, upright: upright === 'yes', acrossSpread: upright !== 'yes' };
  startDrag(event, command, {
    onClick: () => {
      meant = { command, seen: state.revision };
      field.value = '';
      field.placeholder = words;
      showCard(card, event, field);
    },
  });
});

function set(value) {
  card.hidePopover();
  canvas.focus({ preventScroll: true });
  if (value) edit({ ...meant.command, value }, { seen: meant.seen });
}
card.querySelector('form').addEventListener('submit', event => {
  event.preventDefault();
  set(field.value.trim());
});
document.getElementById('guide-remove').addEventListener('click', () => set('none'));
