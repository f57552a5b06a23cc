// Pictures onto frames: picked in the contact sheet, dragged from it, or dropped as files from the computer.
import { at, canvas, frameElement, idOf, sheet } from '../parts.js';
import { edit, isChosenByHand, isMaking, refresh, settled } from '../edits.js';
import { followPointer, isTyping } from '../../shared/pointer.js';
import { bringIn, filesOf, onArrived, onPicked } from '../../shared/intake.js';
import { bringFonts, isFont } from './fonts.js';
import { bringWords, isDocument } from './words.js';
import { state } from '../state.js';
import { takeImage } from './draw.js';
import { offerArrivals } from './arrivals.js';

function place(image, frames) {
  const everywhere = document.getElementById('replace-everywhere')?.checked && frames.join() === state.selection.join();
  return edit({ do: everywhere ? 'replace-everywhere' : 'place', frames, image });
}

sheet.addEventListener('click', event => {
  const thumb = event.target.closest('.thumb');
  if (!thumb || thumb.dataset.carried) return;
  // Into what is just being made, once it is there.
  if (isMaking()) edit({ do: 'place', image: thumb.dataset.image });
  else if (state.selection.length > 0) place(thumb.dataset.image, state.selection);
  else takeImage(thumb.dataset.image);
  // The work goes on at the frame, or where the picture is set down.
  canvas.focus({ preventScroll: true });
});

sheet.addEventListener('pointerdown', event => {
  const thumb = event.target.closest('.contact-sheet li')?.querySelector('.thumb');
  if (!thumb || event.button !== 0) return;
  const startX = event.clientX, startY = event.clientY;
  let carried = null, over = null;
  const onKey = e => {
    if (e.key !== 'Escape' || !carried) return;
    e.stopPropagation();
    letGo();
  };
  document.addEventListener('keydown', onKey, true);
  const letGo = followPointer(document, e => {
    if (!carried && Math.hypot(e.clientX - startX, e.clientY - startY) < 6) return;
    carried ??= lift(thumb);
    carried.style.left = `${e.clientX + 8}px`;
    carried.style.top = `${e.clientY + 8}px`;
    const frame = document.elementFromPoint(e.clientX, e.clientY)?.closest('[data-frame]') ?? null;
    if (frame === over) return;
    over?.classList.remove('drop-here');
    frame?.classList.add('drop-here');
    over = frame;
  }, e => {
    document.removeEventListener('keydown', onKey, true);
    carried?.remove();
    over?.classList.remove('drop-here');
    setTimeout(() => delete thumb.dataset.carried);
    if (carried && e.type !== 'pointercancel') dropAt(thumb.dataset.image, e);
  });
});

// On a frame, into it; beside one, in a frame of its own. A frame that is just being made is there first.
async function dropAt(image, { clientX, clientY }) {
  const where = at({ clientX, clientY });
  if (isMaking()) await settled();
  const there = document.elementFromPoint(clientX, clientY), frame = there?.closest('[data-frame]');
  if (frame) place(image, [idOf(frame)]);
  else if (there?.closest('#canvas')) edit({ do: 'set-down', image, fromX: where.x, fromY: where.y, toX: where.x, toY: where.y });
}

function lift(thumb) {
  const carried = thumb.querySelector('img').cloneNode();
  carried.className = 'carried';
  document.body.append(carried);
  thumb.dataset.carried = 'yes';
  return carried;
}

// Files from the computer: dropped on a frame, the first that could be read is placed there and the others wait in the tray;
// dropped on the table, a card offers where they may go.
canvas.addEventListener('dragover', event => {
  if (event.dataTransfer.types.includes('Files')) event.preventDefault();
});
canvas.addEventListener('drop', async event => {
  if (!event.dataTransfer.types.includes('Files')) return;
  event.preventDefault();
  const frame = event.target.closest('[data-frame]:not(.frame-text)')?.dataset.frame, where = at(event);
  const ofWords = event.target.closest('.frame-text, .frame-empty')?.dataset.frame;
  const all = await filesOf(event.dataTransfer), fonts = all.filter(isFont), files = all.filter(file => !isFont(file));
  if (fonts.length > 0) await bringFonts(fonts);
  // Among pictures, a document is a note that lies beside them.
  if (files.length > 0 && files.every(isDocument)) {
    for (const file of files) await bringWords(file, ofWords, where);
    return;
  }
  if (files.length === 0) return;
  const arrived = [...new Set((await bringIn(files)).filter(a => a.id).map(a => a.id))];
  if (arrived.length === 0) return;
  if (!frame) {
    offerArrivals(arrived, where);
    return;
  }
  edit({ do: 'place', frames: Number(frame), image: arrived[0] });
  if (arrived.length > 1) edit({ do: 'tray-add', images: arrived.slice(1).join(','), keep: frame });
});
onArrived(refresh);

// Where the pointer was last over the spread; pictures that come in without one land about what is in sight.
let pointer = null;
canvas.addEventListener('pointermove', event => { pointer = at(event); });
canvas.addEventListener('pointerleave', () => { pointer = null; });
export function inSight() {
  const { left, top, width, height } = canvas.getBoundingClientRect();
  return at({ clientX: left + width / 2, clientY: top + height / 2 });
}

// Pictures that were picked or pasted: into the placeholders that somebody chose, or in the place of the picture of the one frame; else the card asks.
export function takeIn(arrived, where = inSight()) {
  const frames = isChosenByHand() ? state.selection.map(frameElement).filter(frame => frame && !frame.classList.contains('frame-text')) : [];
  const empty = frames.filter(frame => frame.classList.contains('frame-empty'));
  if (empty.length > 0) edit({ do: 'arrive', images: arrived, frames: empty.map(idOf), keep: state.selection, into: 'Chosen', order: 'Tray' });
  else if (frames.length === 1 && arrived.length === 1) place(arrived[0], [idOf(frames[0])]);
  else offerArrivals(arrived, where);
}
onPicked(arrived => takeIn(arrived));

document.addEventListener('paste', async event => {
  if (isTyping(event.target)) return;
  const files = [...event.clipboardData.files].filter(file => file.type.startsWith('image/'));
  if (files.length === 0) return;
  event.preventDefault();
  const where = pointer ?? inSight(), at = new Date().toISOString().slice(0, 19).replace('T', ' ').replaceAll(':', '.');
  // What comes from a clipboard has one name for all.
  const named = files.map((file, i) => new File([file], `Pasted ${at}${i > 0 ? ` ${i + 1}` : ''}.${file.name.split('.').at(-1)}`, { type: file.type }));
  const arrived = [...new Set((await bringIn(named)).filter(a => a.id).map(a => a.id))];
  if (arrived.length > 0) takeIn(arrived, where);
});
