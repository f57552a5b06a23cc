// Pictures that have just come in: a small card offers where they may go, and shows on the spread what each choice would come to.
import { ask } from '../../shared/http.js';
import { address, canvas, underWay } from '../parts.js';
import { asker } from '../line.js';
import { edit, isChosenByHand } from '../edits.js';
import { state } from '../state.js';
import { tell } from '../../shared/notices.js';

const card = document.getElementById('arrivals-card');
let offered = null;

const preview = asker(answer => {
  if (offered && state.writing === null) underWay.innerHTML = answer.preview ?? '';
});

const commandOf = button => ({ do: 'arrive', images: offered.images, frames: button.dataset.into === 'Chosen' ? offered.frames : '',
    into: button.dataset.into, order: button.dataset.order,
    toX: offered.where.x, toY: offered.where.y });

export async function offerArrivals(images, where) {
  // What was only made last is not meant.
  const frames = isChosenByHand() ? state.selection.join(',') : '';
  const query = new URLSearchParams({ images: images.join(','), frames, toX: where.x, toY: where.y });
  const answer = await ask('GET', `${address}?handler=Arrivals&${query}`).catch(problem => tell(problem.message) && null);
  if (!answer) return;
  offered = { images: images.join(','), frames, where, seen: state.revision };
  card.innerHTML = answer.text;
  card.showPopover();
  card.querySelector('button').focus();
}

for (const kind of ['focusin', 'pointerover']) {
  card.addEventListener(kind, event => {
    const button = event.target.closest('[data-into]');
    if (button && offered) preview.ask(commandOf(button));
  });
}

card.addEventListener('click', event => {
  const button = event.target.closest('[data-into]');
  if (!button) return;
  const command = commandOf(button), { seen } = offered;
  card.hidePopover();
  canvas.focus({ preventScroll: true });
  edit(command, { seen });
});

// Left without a choice, the pictures are among the images, and wait there.
card.addEventListener('toggle', event => {
  if (event.newState !== 'closed') return;
  offered = null;
  if (state.writing === null) underWay.replaceChildren();
});
