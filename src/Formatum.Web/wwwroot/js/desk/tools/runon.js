// Text that runs on: what each proposal comes to is shown while the pointer or the keys are on its button; or what is left over is dragged onto a frame.
import { asker } from '../line.js';
import { canvas, idOf, inspector, underWay } from '../parts.js';
import { choose, edit } from '../edits.js';
import { followPointer } from '../../shared/pointer.js';
import { hideWords, showWords } from '../patch.js';
import { state } from '../state.js';

let shown = null;

const preview = asker(answer => {
  if (!shown || state.writing !== null) return;
  underWay.innerHTML = answer.preview ?? '';
  showWords(answer.words, shown.pointer);
});

function propose(asked, pointer) {
  shown = { pointer };
  preview.ask(asked);
}

function clear() {
  if (!shown) return;
  shown = null;
  hideWords();
  if (state.writing === null) underWay.replaceChildren();
}

const buttonOf = event => event.target.closest?.('[data-do=run-on]');
for (const [begin, end] of [['pointerover', 'pointerout'], ['focusin', 'focusout']]) {
  inspector.addEventListener(begin, event => {
    const button = buttonOf(event);
    if (!button) return;
    const { right, top } = button.getBoundingClientRect();
    propose({ do: 'run-on', into: button.dataset.into }, { clientX: right, clientY: top });
  });
  inspector.addEventListener(end, event => { if (buttonOf(event)) clear(); });
}
inspector.addEventListener('click', event => { if (buttonOf(event)) clear(); });

canvas.addEventListener('pointerdown', event => {
  const mark = event.target.closest('.overflow-mark');
  if (!mark || event.button !== 0 || state.writing !== null) return;
  event.stopPropagation();
  event.preventDefault();
  const from = idOf(mark.closest('[data-frame]'));
  let into = null, moved = false;
  const frameAt = e => document.elementsFromPoint(e.clientX, e.clientY).map(element => element.closest('.frame-text, .frame-empty'))
      .find(frame => frame && idOf(frame) !== from) ?? null;
  followPointer(document, e => {
    moved ||= Math.hypot(e.clientX - event.clientX, e.clientY - event.clientY) > 4;
    if (!moved) return;
    const frame = frameAt(e), id = frame && idOf(frame);
    if (id === into && shown) {
      showWords(document.getElementById('pointer-words').textContent, e);
      return;
    }
    clear();
    into = id;
    if (id === null) {
      shown = { pointer: e };
      showWords('onto an empty frame', e);
    } else propose({ do: 'run-on', frames: String(from), into: String(id) }, e);
  }, e => {
    clear();
    if (e.type === 'pointerup' && !moved) choose([from]);
    else if (e.type === 'pointerup' && into !== null) edit({ do: 'run-on', frames: String(from), into: String(into), keep: into });
  });
}, true);
