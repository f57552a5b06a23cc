// Makes what is shown the same as an answer, and leaves alone what is the same already: what is made anew is laid out and painted anew as well.

// Puts the pieces of an answer in their places: those that name one (hx-swap-oob) there, all else in the target.
export function renewWith(html, target) {
  const answer = document.createElement('template'), focused = document.activeElement?.id;
  answer.innerHTML = html;
  for (const piece of piecesOf(answer.content)) place(piece);
  renewChildren(target, answer.content);
  // Where the keys went is made anew: they go on there.
  if (focused && document.activeElement === document.body) document.getElementById(focused)?.focus({ preventScroll: true });
}

// Drawings come within templates of their own: outside of a drawing, the browser would take their elements for something else.
function piecesOf(content) {
  const pieces = [...content.querySelectorAll('[hx-swap-oob]')];
  for (const template of content.querySelectorAll('template')) {
    const within = piecesOf(template.content);
    if (within.length > 0) template.remove();
    pieces.push(...within);
  }
  return pieces;
}

function place(piece) {
  const isWhole = piece.getAttribute('hx-swap-oob') === 'true', there = document.getElementById(piece.id);
  piece.remove();
  piece.removeAttribute('hx-swap-oob');
  if (!there) return;
  if (isWhole) renew(there, piece);
  else renewChildren(there, piece);
}

// A button that does something else is another: the keys may be on it.
const isSameButton = (one, other) => one.nodeName !== 'BUTTON' || JSON.stringify(one.dataset) === JSON.stringify(other.dataset);
const isAlike = (one, other) => one.nodeName === other.nodeName && one.id === other.id && one.type === other.type && isSameButton(one, other);

function renew(shown, wanted) {
  if (shown.isEqualNode(wanted)) return;
  if (!isAlike(shown, wanted)) {
    shown.replaceWith(wanted);
    takeUp(wanted);
  } else if (shown.nodeType !== Node.ELEMENT_NODE) {
    shown.data = wanted.data;
  } else {
    renewAttributes(shown, wanted);
    renewChildren(shown, wanted);
  }
}

function renewAttributes(shown, wanted) {
  for (const { name } of [...shown.attributes]) if (!wanted.hasAttribute(name)) shown.removeAttribute(name);
  for (const { namespaceURI, name, value } of wanted.attributes) {
    if (shown.getAttribute(name) !== value) shown.setAttributeNS(namespaceURI, name, value);
  }
}

// Nodes that are alike at the beginning and at the end become each other; those in between are changed for others.
function renewChildren(shown, wanted) {
  const there = [...shown.childNodes], next = [...wanted.childNodes], most = Math.min(there.length, next.length);
  let first = 0, last = 0;
  while (first < most && isAlike(there[first], next[first])) first++;
  while (last < most - first && isAlike(there.at(-1 - last), next.at(-1 - last))) last++;
  for (let i = 0; i < first; i++) renew(there[i], next[i]);
  for (let i = 1; i <= last; i++) renew(there.at(-i), next.at(-i));
  const behind = last > 0 ? shown.childNodes[shown.childNodes.length - last] : null;
  for (const node of there.slice(first, there.length - last)) node.remove();
  for (const node of next.slice(first, next.length - last)) {
    shown.insertBefore(node, behind);
    takeUp(node);
  }
}

function takeUp(node) {
  if (node.matches?.('[hx-get], [hx-post]') || node.querySelector?.('[hx-get], [hx-post]')) window.htmx.process(node);
}

// Fields hold what the answer says, whatever stood in them; all but those that are kept.
export function settleFields(target, isKept = () => false) {
  for (const field of target.querySelectorAll('input, select, textarea')) {
    if (isKept(field) || field.type === 'file') continue;
    // Neither on nor off it was of others.
    if (field.indeterminate) field.indeterminate = false;
    if (field.localName === 'select') settleSelect(field);
    else if (field.type === 'checkbox' || field.type === 'radio') {
      if (field.checked !== field.defaultChecked) field.checked = field.defaultChecked;
    }
    else if (field.value !== field.defaultValue) field.value = field.defaultValue;
  }
}

function settleSelect(select) {
  const meant = [...select.options].filter(option => option.defaultSelected);
  if (select.multiple) {
    for (const option of select.options) option.selected = option.defaultSelected;
    return;
  }
  const index = meant.length > 0 ? meant.at(-1).index : 0;
  if (select.selectedIndex !== index) select.selectedIndex = index;
}
