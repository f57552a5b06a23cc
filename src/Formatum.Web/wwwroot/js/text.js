// Typing text in its place. What is typed is sent after each pause and when the field is left; the server breaks the lines.
(() => {
  const { underWay, canvas, inspector, make, edit, frameElement, address, spread, boxOf } = window.Desk;
  const pause = 1200;
  let writing = null;

  const fieldOf = holder => holder.querySelector('.writing');

  // Opens the field over a frame, the caret at the end or where it was.
  async function write(id, caret = null) {
    await leave();
    const answer = await fetch(`${address}/${spread}?handler=Writing&frames=${id}`);
    if (!answer.ok) return;
    const frame = frameElement(id), [, , width, height] = boxOf(frame);
    const holder = make('foreignObject', { width, height, transform: frame.getAttribute('transform'), class: 'writing-holder' });
    holder.innerHTML = await answer.text();
    underWay.replaceChildren(holder);
    const field = fieldOf(holder);
    writing = { id, holder, field, sent: plain(field), timer: 0 };
    hideBeneath();
    canvas.classList.add('is-writing');
    field.focus({ preventScroll: true });
    if (caret) putCaret(field, caret);
    else getSelection().selectAllChildren(field), getSelection().collapseToEnd();
    field.addEventListener('input', () => {
      clearTimeout(writing.timer);
      writing.timer = setTimeout(send, pause);
    });
    field.addEventListener('focusout', () => { if (writing?.field === field) send(); });
    field.addEventListener('paste', event => {
      event.preventDefault();
      document.execCommand('insertText', false, event.clipboardData.getData('text/plain'));
    });
    field.addEventListener('keydown', event => {
      event.stopPropagation();
      if (event.key !== 'Escape') return;
      event.preventDefault();
      leave();
    });
  }

  const paragraphs = field => [...field.childNodes].filter(node => node.nodeType === Node.ELEMENT_NODE || node.textContent);

  // Line ends between paragraphs; a line ended with Shift and Enter stays within its paragraph.
  function plain(field) {
    return paragraphs(field).map(node => {
      if (node.nodeType === Node.TEXT_NODE) return node.textContent;
      const copy = node.cloneNode(true);
      if (copy.lastChild?.nodeName === 'BR') copy.lastChild.remove();
      copy.querySelectorAll('br').forEach(br => br.replaceWith('\u2028'));
      return copy.textContent;
    }).join('\n').replaceAll('\u00a0', ' ');
  }

  function send() {
    if (!writing) return Promise.resolve();
    clearTimeout(writing.timer);
    const text = plain(writing.field);
    if (text === writing.sent) return Promise.resolve();
    writing.sent = text;
    return edit({ do: 'write', frames: writing.id, keep: writing.id, text });
  }

  async function leave() {
    if (!writing) return;
    const sent = send(), { holder, id } = writing;
    writing = null;
    await sent;
    holder.remove();
    canvas.classList.remove('is-writing');
    delete frameElement(id)?.dataset.written;
    frameElement(id)?.focus({ preventScroll: true });
  }

  // What is set steps aside while it is typed over; also when the server has sent it anew.
  function hideBeneath() {
    if (writing) frameElement(writing.id)?.setAttribute('data-written', 'yes');
  }
  document.addEventListener('htmx:afterSettle', hideBeneath);
  document.addEventListener('htmx:oobAfterSwap', hideBeneath);

  // Which paragraphs the selection reaches over, and how far into the first of them the caret stands.
  function selected() {
    const range = getSelection().rangeCount ? getSelection().getRangeAt(0) : null;
    if (!writing || !range || !writing.field.contains(range.startContainer)) return writing?.last ?? null;
    const all = paragraphs(writing.field), of = node => Math.max(0, all.findIndex(p => p === node || p.contains(node)));
    const before = range.cloneRange();
    before.selectNodeContents(all[of(range.startContainer)] ?? writing.field);
    before.setEnd(range.startContainer, range.startOffset);
    return { first: of(range.startContainer), last: of(range.endContainer), offset: before.toString().length };
  }
  document.addEventListener('selectionchange', () => { if (writing?.field.contains(document.activeElement)) writing.last = selected(); });

  function putCaret(field, { first, offset }) {
    const walker = document.createTreeWalker(paragraphs(field)[first] ?? field, NodeFilter.SHOW_TEXT);
    let left = offset, node;
    while ((node = walker.nextNode())) {
      if (left <= node.length) {
        getSelection().collapse(node, left);
        return;
      }
      left -= node.length;
    }
    getSelection().selectAllChildren(paragraphs(field)[first] ?? field);
    getSelection().collapseToEnd();
  }

  // A style goes to the paragraphs that are selected while text is typed, and else to all.
  async function style(values) {
    const at = writing && selected(), id = writing?.id;
    if (at) {
      await send();
      Object.assign(values, { firstParagraph: at.first, lastParagraph: at.last });
    }
    await edit({ do: 'text-style', ...values });
    if (at) {
      writing = null;
      write(id, at);
    }
  }

  inspector.addEventListener('change', event => {
    const name = event.target.dataset.text;
    if (name) style({ [name]: event.target.type === 'checkbox' ? event.target.checked : event.target.value });
  });
  inspector.addEventListener('click', event => {
    const align = event.target.closest('[data-text-align]');
    if (align) style({ textAlign: align.dataset.textAlign });
    if (event.target.closest('#write')) write(window.Desk.chosen[0]);
  });
  // A button takes the caret away from what is typed; it does not, so that the selection stays.
  inspector.addEventListener('mousedown', event => { if (writing && event.target.closest('[data-text-align]')) event.preventDefault(); });

  canvas.addEventListener('pointerdown', event => {
    if (!writing) return;
    if (event.target.closest('.writing-holder')) event.stopPropagation();
    else leave();
  }, true);
  canvas.addEventListener('dblclick', event => { if (event.target.closest?.('.writing-holder')) event.stopPropagation(); }, true);
  window.addEventListener('beforeunload', event => {
    if (writing && plain(writing.field) !== writing.sent) event.preventDefault();
  });

  Object.assign(window.Desk, { write, get writing() { return writing !== null; } });
})();
