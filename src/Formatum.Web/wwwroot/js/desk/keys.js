// The keys of the Desk: one table, from which the list of keys is made too. The first line that applies is the one that is meant.
import { openFind } from './tools/find.js';
import { cancelDrag } from './drag.js';
import { canShape, changePoint, nudgePoint, shape, takeNext } from './tools/shape.js';
import { canvas, frameElement, frameElements, idOf } from './parts.js';
import { choose, edit, hasChoice, isBusy, isTurning, lookedLast, settled, turnBy } from './edits.js';
import { chooseNarrower, duplicate, goInto, nudge } from './selection.js';
import { closeFree, isDrawingFree } from './tools/free.js';
import { changeSides, drawHere, giveUpText, isTextComing, takeTool } from './tools/draw.js';
import { hasHand, hasTray, stepHand, takeUp, toggleHand } from './tools/tray.js';
import { isTyping } from '../shared/pointer.js';
import { nudgePicture, zoomPicture } from './tools/inside.js';
import { isBeingTyped } from './typed.js';
import { openCommands } from './commands.js';
import { openMenu } from './menu.js';
import { openStyles } from './writing/styles.js';
import { showClean, showUntreated, zoom } from './view.js';
import { state } from './state.js';
import { tell } from '../shared/notices.js';

const outside = () => !state.inside;
const chosen = () => hasChoice() && !state.inside;
const shaping = () => state.shaping;
const drawing = () => state.tool !== 'pick';
// Somebody goes by keys through what lies beside the spread: keys are meant for that. After a click on a button there, they are the frame's again.
let clicked = null;
document.addEventListener('pointerdown', event => { clicked = event.target.closest('button, summary'); }, true);
document.addEventListener('keydown', event => { if (event.key === 'Tab') clicked = null; }, true);
const away = ({ target }) => target.matches('input[type=range]') || target.closest('.strip, .pictures')
    || (target.closest('.inspector, .workbar, .topbar') && target !== clicked);
const arrows = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };

// An arrow as steps; with Shift ten times as far.
const byArrow = run => event => {
  const [x, y] = arrows[event.key], times = event.shiftKey ? 10 : 1;
  return run(x * times, y * times);
};

const tool = (key, name, words) => ({ keys: [key], group: 'Making', words, when: outside, run: event => event.repeat || takeTool(name, { key: event.key }) });

// Also what is found by its words, and done from there.
// keys: as KeyboardEvent.key gives them, letters small, with "ctrl+", "alt+" and "shift+" before them.
const table = [
  tool('1', 'rectangle', 'Drag a rectangle'),
  tool('2', 'ellipse', 'Drag an ellipse'),
  tool('3', 'polygon', 'Drag a polygon or a star'),
  tool('4', 'free', 'Draw a free outline: points, or one stroke'),
  tool('5', 'text', 'Drag a text frame'),
  { show: '1 1', group: 'Making', words: 'A tool twice, or its key held: it stays in hand' },
  { keys: ['ArrowUp', 'ArrowDown'], group: 'Making', words: 'With a polygon in hand: one side more, or less', when: () => state.tool === 'polygon',
      run: event => changeSides(event.key === 'ArrowUp' ? 1 : -1) },
  { keys: ['Enter'], when: isDrawingFree, run: closeFree },
  { keys: ['Enter'], group: 'Making', words: 'With a tool in hand: make the frame in the middle of the page', when: () => drawing()
      && !['free', 'grid', 'set-down'].includes(state.tool), run: drawHere },
  { show: 'Shift, Alt', group: 'Making', words: 'While dragging a frame: equal sides; from the middle' },

  { keys: ['ArrowLeft', 'ArrowRight'], group: 'Tray', words: 'With a picture in hand: the one before, the next', when: hasHand,
      run: event => stepHand(event.key === 'ArrowRight' ? 1 : -1) },
  { keys: ['t'], group: 'Tray', words: 'Take up the pictures of the tray, or put them down', when: hasTray, run: toggleHand },
  { keys: ['Escape'], when: hasHand, run: () => takeUp(null) },
  { show: 'Shift, Ctrl click', group: 'Tray', words: 'On pictures of the tray or the images: mark several' },
  { show: 'Alt \u2190 \u2192, Delete', group: 'Tray', words: 'On a picture of the tray: move it, take it out' },

  { keys: ['p'], group: 'Outline', words: 'Change the points of the frame\u2019s outline', when: () => chosen() && canShape(),
      run: () => shape(!state.shaping) },
  { keys: ['Escape'], when: shaping, run: () => shape(false) },
  { keys: ['n', 'shift+n'], group: 'Outline', words: 'The next point; with Shift, the one before', when: shaping,
      run: event => takeNext(event.shiftKey ? -1 : 1) },
  { keys: ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'], shift: true, show: '\u2190 \u2191 \u2192 \u2193', group: 'Outline',
      words: 'Move the point; with Shift, ten times', when: shaping, run: byArrow(nudgePoint) },
  { keys: ['b'], group: 'Outline', words: 'Bend the point, or make it a corner', when: shaping, run: () => changePoint('shape-bend') },
  { keys: ['Insert'], group: 'Outline', words: 'One more point behind it', when: shaping, run: () => changePoint('shape-add-next') },
  { keys: ['Delete'], group: 'Outline', words: 'Take the point away', when: shaping, run: () => changePoint('shape-remove') },

  { keys: ['Tab'], show: 'Tab, Enter', group: 'Choosing', words: 'From frame to frame; choose it, then go into its picture or text' },
  { keys: ['Enter'], when: event => outside() && !event.target.closest('button:not([data-frame]), a, summary'), run: enter },
  { show: 'Double\u00a0click', group: 'Choosing', words: 'Go into the picture or the text' },
  { show: 'Shift click', group: 'Choosing', words: 'One frame more, or less' },
  { show: 'Ctrl click', group: 'Choosing', words: 'The frame beneath the one that is chosen' },
  { show: 'Click\u00a0again', group: 'Choosing', words: 'One frame of a group that is chosen' },
  { keys: ['ContextMenu', 'shift+F10'], show: 'Shift F10', group: 'Choosing', words: 'What can be done with what is chosen, as with the right button',
      when: outside, run: openMenu },
  { keys: ['f', 'ctrl+f'], show: 'F', group: 'Choosing', words: 'Find words in the texts, and put others in their place', when: outside, run: openFind },
  { keys: ['ctrl+a'], group: 'Choosing', words: 'All frames of the spread', when: outside, run: () => choose(frameElements().map(idOf)) },
  { keys: ['Escape'], group: 'Choosing', words: 'Out of the picture, text or field; put the tool down; let go of what is chosen', run: escape },

  { keys: ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'], shift: true, show: '\u2190 \u2191 \u2192 \u2193', group: 'Arranging',
      words: 'Nudge; with Shift, ten times', when: event => chosen() && !away(event), run: byArrow(nudge) },
  { show: 'Shift, Alt, Ctrl', group: 'Arranging', words: 'While moving: straight; a copy; without snapping' },
  { show: 'Shift, Alt, Ctrl', group: 'Arranging', words: 'While sizing: the ratio kept; from the middle; the picture scaled too' },
  { keys: ['ctrl+d'], group: 'Arranging', words: 'Duplicate', when: chosen, run: duplicate },
  { keys: ['ctrl+g', 'ctrl+shift+g'], show: 'Ctrl G', group: 'Arranging', words: 'Group; with Shift, ungroup', when: chosen,
      run: event => edit({ do: event.shiftKey ? 'ungroup' : 'group' }) },
  { keys: ['PageUp', 'shift+PageUp'], show: 'Page\u00a0up', group: 'Arranging', words: 'Forward; with Shift, to the front', when: chosen,
      run: event => edit({ do: 'stack', stack: event.shiftKey ? 'Front' : 'Forward' }) },
  { keys: ['PageDown', 'shift+PageDown'], show: 'Page\u00a0down', group: 'Arranging', words: 'Back; with Shift, to the back', when: chosen,
      run: event => edit({ do: 'stack', stack: event.shiftKey ? 'Back' : 'Backward' }) },
  { keys: ['l'], group: 'Arranging', words: 'The look that was set last, once more', when: () => chosen() && lookedLast() !== null,
      run: () => edit({ do: 'look-again', like: lookedLast() }) },
  { keys: ['Delete', 'Backspace'], show: 'Delete', group: 'Arranging', words: 'Remove the frame', when: event => chosen() && !away(event),
      run: () => edit({ do: 'remove' }) },
  { keys: ['Delete', 'Backspace'], when: event => state.inside && !away(event), run: () => edit({ do: 'take-out' }) },
  { keys: ['ctrl+d'], run: () => tell('Nothing is chosen. Choose the frame that is to be duplicated, then press Ctrl D.') },
  { show: 'Ctrl C, X, V', group: 'Arranging', words: 'Copy, cut, paste at the pointer; with Shift, where it was' },

  { keys: ['ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown'], shift: true, show: '\u2190 \u2191 \u2192 \u2193', group: 'In a picture',
      words: 'Nudge the picture; with Shift, ten times', when: event => state.inside && !away(event), run: byArrow(nudgePicture) },
  { keys: ['+', 'shift++', '='], show: '+', group: 'In a picture', words: 'Enlarge the picture', when: () => state.inside, run: () => zoomPicture(1.05) },
  { keys: ['-'], show: '\u2212', group: 'In a picture', words: 'Reduce the picture', when: () => state.inside, run: () => zoomPicture(1 / 1.05) },
  { keys: ['.'], group: 'In a picture', words: 'Step through the fits', when: () => state.selection.length > 0, run: () => edit({ do: 'step-fit' }) },

  { keys: ['y', 'shift+y'], show: 'Y, Alt Y', group: 'Typing', words: 'Choose a paragraph style, with Alt while typing; with Shift, a character style',
      when: () => document.getElementById('text-style') !== null, run: event => openStyles(event.shiftKey) },
  { show: 'Ctrl B, I, U', group: 'Typing', words: 'Bold, italic, underlined: the words that are selected, else what is typed next' },
  { show: 'Shift Enter', group: 'Typing', words: 'A new line in the same paragraph' },
  { show: 'Ctrl Shift V', group: 'Typing', words: 'Paste the words alone, not how they are set' },

  { keys: ['PageUp', 'PageDown'], show: 'Page\u00a0up, Page\u00a0down', group: 'Looking', words: 'With nothing chosen: to the spread before, to the next',
      when: outside, run: event => {
        // A key that is held goes no faster than what it shows.
        if (!event.repeat || !isTurning()) turnBy(event.key === 'PageUp' ? 'previous-spread' : 'next-spread');
      } },
  { keys: ['+', 'shift++', '='], show: '+, \u2212', group: 'Looking', words: 'Zoom in, zoom out', run: () => zoom('in') },
  { keys: ['-'], run: () => zoom('out') },
  { show: 'Ctrl wheel, two\u00a0fingers', group: 'Looking', words: 'Zoom about the pointer' },
  { show: 'Space drag, one\u00a0finger', group: 'Looking', words: 'Pan' },
  { keys: ['`'], group: 'Looking', words: 'Hold: the page clean', run: () => showClean(true) },
  { keys: ['\\'], group: 'Looking', words: 'Hold: pictures as their files have them', run: () => showUntreated(true) },

  { keys: ['ctrl+z', 'ctrl+shift+z', 'ctrl+y'], show: 'Ctrl Z', group: 'Everywhere', words: 'Undo what you did last; with Shift, redo',
      run: event => edit({ do: event.shiftKey || event.key === 'y' ? 'redo' : 'undo' }) },
  { keys: ['ctrl+s'], run: () => tell('Everything is stored as it is done. Nothing has to be saved.') },
  { keys: ['/', 'shift+/'], show: '/', group: 'Everywhere', words: 'Find a command or a setting by a word for it', run: () => openCommands(table, shown) },
  { keys: ['?', 'shift+?'], show: '?', group: 'Everywhere', words: 'This list', run: () => document.getElementById('keys').showPopover() },
];

async function enter(event) {
  // A picture that is on its way into it is what is gone into.
  if (isBusy()) await settled();
  const frame = event.target.closest('[data-frame]'), id = frame ? idOf(frame) : state.selection[0];
  if (!id) return;
  if (state.selection.length === 1 && state.selection[0] === id) goInto(frameElement(id));
  else if (frame && state.selection.includes(id)) chooseNarrower(id, state.selection);
  else if (frame) choose([id]);
}

function escape() {
  if (isTextComing()) giveUpText();
  else if (state.inside) choose(state.selection);
  else if (drawing()) takeTool('pick');
  else if (state.selection.length > 0) choose([]);
  cancelDrag();
}

// In a field whose value is with the server, this is the publication's.
const isUndo = event => (event.ctrlKey || event.metaKey) && (event.key.toLowerCase() === 'z' || event.key.toLowerCase() === 'y');

function nameOf(event) {
  const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
  return `${event.ctrlKey || event.metaKey ? 'ctrl+' : ''}${event.altKey ? 'alt+' : ''}${event.shiftKey ? 'shift+' : ''}${key}`;
}

document.addEventListener('keydown', event => {
  if (document.querySelector('dialog[open], [popover]:popover-open')) return;
  if (isTyping(event.target) && (state.writing !== null || !isUndo(event) || isBeingTyped(event.target))) {
    // Out of a field, so that the keys are the page's again.
    if (event.key === 'Escape' && !event.defaultPrevented && state.writing === null) canvas.focus({ preventScroll: true });
    return;
  }
  const name = nameOf(event), plain = name.replace('shift+', '');
  const line = table.find(({ keys = [], shift, run, when }) => run && (keys.includes(name) || (shift && keys.includes(plain))) && (when?.(event) ?? true));
  if (!line) return;
  event.preventDefault();
  line.run(event);
});

document.getElementById('find-command').addEventListener('click', () => openCommands(table, shown));

// After a dialog the work goes on at the page, wherever the dialog was opened from.
for (const dialog of document.querySelectorAll('dialog')) dialog.addEventListener('close', () => canvas.focus({ preventScroll: true }));

// ---- The list ---------------------------------------------------------------------------------------------------------------------------

const names = { ctrl: 'Ctrl', alt: 'Alt', shift: 'Shift', Escape: 'Escape', '-': '\u2212', ArrowLeft: '\u2190', ArrowRight: '\u2192', ArrowUp: '\u2191',
    ArrowDown: '\u2193' };
const shown = ({ show, keys }) => show ?? keys.map(key => key.split(/(?<=.)\+/).map(part => names[part]
    ?? (part.length === 1 ? part.toUpperCase() : part)).join(' ')).join(', ');

function makeList() {
  const list = document.getElementById('key-list');
  for (const group of new Set(table.map(line => line.group).filter(Boolean))) {
    const section = document.createElement('section'), heading = document.createElement('h3'), rows = document.createElement('dl');
    heading.textContent = group;
    for (const line of table.filter(l => l.group === group && l.words)) {
      const key = document.createElement('dt'), words = document.createElement('dd');
      for (const part of shown(line).split(' ')) key.append(Object.assign(document.createElement('kbd'), { textContent: part.replace(/,$/, '') }), ' ');
      words.textContent = line.words;
      rows.append(key, words);
    }
    section.append(heading, rows);
    list.append(section);
  }
}
makeList();
