// The Desk: follows the pointer and the keys, sends them to the server, and shows what it answers. No fit, no snap and no size is computed here.
(() => {
  const desk = document.getElementById('desk');
  const svg = document.getElementById('spread');
  const canvas = document.getElementById('canvas');
  const inspector = document.getElementById('inspector');
  const underWay = document.getElementById('under-way');
  const grips = document.getElementById('grips');
  const pointerWords = document.getElementById('pointer-words');
  const address = desk.dataset.address;
  const spread = desk.dataset.spread;
  const svgNamespace = 'http://www.w3.org/2000/svg';

  let tool = 'pick';
  let chosen = [];
  let inside = false;
  let busy = 0;

  const revision = () => Number(document.getElementById('revision').dataset.revision);
  const frameElement = id => document.getElementById(`frame-${id}`);
  const boxOf = element => element.dataset.box.split(' ').map(Number);

  // ---- Edits: one way out, one way back -------------------------------------------------------------------------------------------

  // While something is under way, assistive technology waits with reading the Desk aloud.
  async function during(work) {
    busy++;
    desk.setAttribute('aria-busy', 'true');
    try {
      await work;
    } finally {
      busy--;
      if (!busy) desk.removeAttribute('aria-busy');
    }
  }

  // One edit at a time, in the order they were made: each is sent once the page has seen what the one before it came to.
  let edits = Promise.resolve();
  function edit(values) {
    const sent = { frames: chosen.join(','), ...values };
    edits = edits.then(() => htmx.ajax('POST', `${address}/${spread}?seen=${revision()}&inside=${inside}`, { values: sent, target: '#inspector', swap: 'innerHTML' })).catch(() => {});
    return during(edits);
  }

  inspector.addEventListener('htmx:afterSettle', readInspector);

  function readInspector() {
    const ids = inspector.querySelector('[data-chosen]')?.dataset.chosen;
    chosen = ids ? ids.split(',').map(Number) : [];
    inside = inspector.querySelector('[data-inside]') !== null;
    canvas.classList.toggle('is-inside', inside);
    for (const mixed of inspector.querySelectorAll('[type=checkbox][aria-description]')) mixed.indeterminate = true;
    openAgain();
    showGrips();
  }

  // What was folded open in the inspector stays open when the server sends it anew.
  const opened = new Set();
  inspector.addEventListener('toggle', event => {
    if (event.target.open) opened.add(event.target.id);
    else if (event.target.isConnected) opened.delete(event.target.id);
  }, true);
  function openAgain() {
    for (const id of opened) document.getElementById(id)?.setAttribute('open', '');
  }

  document.addEventListener('formatum:refused', event => {
    const errors = event.detail.problem?.errors;
    if (event.detail.status === 409) refresh();
    if (!errors) return;
    let shown = false;
    for (const [field, messages] of Object.entries(errors)) {
      const words = inspector.querySelector(`[data-error-of="${CSS.escape(fieldOf(field))}"]`);
      if (!words) continue;
      const input = words.parentElement.querySelector('input, select');
      input?.classList.add('is-invalid');
      words.textContent = messages.join(' ');
      words.style.display = 'block';
      shown = true;
    }
    if (shown) event.preventDefault();
  });

  // "inset.top" and "align" of the automation interface are the fields insetTop and alignX here.
  function fieldOf(name) {
    if (name === 'align') return 'alignX';
    if (name.startsWith('look.')) return name;
    return name.replace(/^recrop\./, '').replace(/\.(\w)/, (_, letter) => letter.toUpperCase());
  }

  // Frames of one group are chosen together.
  function withGroups(ids) {
    const groups = new Set(ids.map(id => frameElement(id)?.dataset.group).filter(Boolean));
    const more = [...groups].flatMap(group => [...svg.querySelectorAll(`#frames [data-group="${group}"]`)].map(frame => Number(frame.dataset.frame)));
    return [...new Set([...ids, ...more])];
  }

  let wish = { ids: [], goInside: false };

  async function choose(ids, goInside = false) {
    if (!goInside) ids = withGroups(ids);
    wish = { ids, goInside };
    chosen = ids;
    inside = goInside;
    showGrips();
    await during(htmx.ajax('GET', `${address}/${spread}?handler=Inspector&frames=${ids.join(',')}&inside=${goInside}`, { target: '#inspector', swap: 'innerHTML' }));
  }

  async function refresh() {
    const before = wish;
    await during(htmx.ajax('GET', `${address}/${spread}?handler=Refresh&frames=${chosen.join(',')}&inside=${inside}`, { target: '#inspector', swap: 'innerHTML' }));
    // What was chosen while the answer was on its way stays chosen.
    if (wish !== before) await choose(wish.ids, wish.goInside);
  }

  // ---- What is chosen ---------------------------------------------------------------------------------------------------------------

  const gripPlaces = { nw: [0, 0], n: [0.5, 0], ne: [1, 0], e: [1, 0.5], se: [1, 1], s: [0.5, 1], sw: [0, 1], w: [0, 0.5] };
  const gripCursors = { nw: 'nwse', n: 'ns', ne: 'nesw', e: 'ew', se: 'nwse', s: 'ns', sw: 'nesw', w: 'ew' };

  function make(name, attributes) {
    const element = document.createElementNS(svgNamespace, name);
    for (const [key, value] of Object.entries(attributes)) element.setAttribute(key, value);
    return element;
  }

  function showGrips() {
    grips.replaceChildren();
    if (inside) {
      document.dispatchEvent(new CustomEvent('formatum:inside'));
      return;
    }
    const frames = chosen.map(frameElement).filter(Boolean);
    if (frames.length === 0) return;
    for (const frame of window.Desk?.shaping ? [] : frames) {
      const [x, y, width, height] = boxOf(frame);
      grips.append(make('rect', { class: 'chosen-box', x, y, width, height, transform: turnOf(frame) }));
    }
    if (frames.some(frame => frame.classList.contains('frame-locked'))) return;
    if (window.Desk?.shaping) {
      document.dispatchEvent(new CustomEvent('formatum:shape'));
      return;
    }
    // One frame has its grips along its own sides, several along the box around them all.
    const one = frames.length === 1;
    const boxes = frames.map(frame => one ? boxOf(frame) : boundsOf(frame));
    const left = Math.min(...boxes.map(b => b[0])), top = Math.min(...boxes.map(b => b[1]));
    const right = Math.max(...boxes.map(b => b[0] + b[2])), bottom = Math.max(...boxes.map(b => b[1] + b[3]));
    const holder = make('g', one ? { transform: turnOf(frames[0]) } : {});
    grips.append(holder);
    if (!one) holder.append(make('rect', { class: 'chosen-around', x: left, y: top, width: right - left, height: bottom - top }));
    for (const [name, [fx, fy]] of Object.entries(gripPlaces)) addGrip({ x: left + fx * (right - left), y: top + fy * (bottom - top) }, name, `${gripCursors[name]}-resize`, 'rect', holder);
    const middle = (left + right) / 2, above = top - 24 / scale();
    holder.append(make('line', { class: 'turn-line', x1: middle, y1: top, x2: middle, y2: above }));
    addGrip({ x: middle, y: above }, 'turn', 'grab', 'circle', holder);
  }

  function turnOf(frame) {
    const [x, y, width, height] = boxOf(frame);
    return `rotate(${frame.dataset.angle} ${x + width / 2} ${y + height / 2})`;
  }

  // The upright box around a frame, in points of the spread: where its outline is seen.
  function boundsOf(frame) {
    const seen = frame.querySelector('.outline').getBoundingClientRect(), toSpread = svg.getScreenCTM().inverse();
    const p = new DOMPoint(seen.left, seen.top).matrixTransform(toSpread), q = new DOMPoint(seen.right, seen.bottom).matrixTransform(toSpread);
    return [p.x, p.y, q.x - p.x, q.y - p.y];
  }

  // A small square to see, and around it a larger one to take hold of.
  function addGrip(place, name, cursor, shape = 'rect', holder = grips) {
    const pixel = 1 / scale();
    holder.append(shape === 'rect'
      ? make('rect', { class: 'grip', x: place.x - 4.5 * pixel, y: place.y - 4.5 * pixel, width: 9 * pixel, height: 9 * pixel })
      : make('circle', { class: 'grip', cx: place.x, cy: place.y, r: 6 * pixel }));
    const reach = make('rect', { class: 'grip-reach', x: place.x - 12 * pixel, y: place.y - 12 * pixel, width: 24 * pixel, height: 24 * pixel, 'data-grip': name });
    reach.style.cursor = cursor;
    holder.append(reach);
  }

  // ---- Zoom ---------------------------------------------------------------------------------------------------------------------------

  const [viewX, viewY, viewWidth, viewHeight] = svg.getAttribute('viewBox').split(' ').map(Number);
  const pages = svg.dataset.pages.split(';').map(text => text.split(' ').map(Number));
  let shownScale = 1;

  function scale() { return shownScale; }

  function setScale(next, mode) {
    shownScale = Math.min(Math.max(next, 0.05), 20);
    svg.style.width = `${viewWidth * shownScale}px`;
    svg.style.height = `${viewHeight * shownScale}px`;
    svg.style.setProperty('--pixel', `${1 / shownScale}`);
    // 100 % shows an inch as 96 CSS pixels.
    document.getElementById('zoom-figure').textContent = `${Math.round(shownScale * 75)} %`;
    for (const button of document.querySelectorAll('[data-zoom]')) {
      if (button.dataset.zoom !== 'in' && button.dataset.zoom !== 'out') button.setAttribute('aria-pressed', button.dataset.zoom === mode);
    }
    showGrips();
    document.dispatchEvent(new CustomEvent('formatum:scale'));
  }

  function zoom(mode) {
    const room = 14, width = canvas.clientWidth - 2 * room, height = canvas.clientHeight - 2 * room;
    const bleed = Number(svg.dataset.bleed);
    const last = pages[pages.length - 1];
    if (mode === 'spread') setScale(Math.min(width / (last[0] + last[2] + 2 * bleed), height / (last[3] + 2 * bleed)), mode);
    if (mode === 'page') setScale(Math.min(width / (pages[0][2] + 2 * bleed), height / (pages[0][3] + 2 * bleed)) , mode);
    const around = mode === 'chosen' ? chosenBox() : null;
    if (around) setScale(Math.min(width / (around[2] * 1.15), height / (around[3] * 1.15)), mode);
    if (mode === 'full') setScale(96 / 72, mode);
    if (mode === 'in') setScale(shownScale * 1.25);
    if (mode === 'out') setScale(shownScale / 1.25);
    const of = around ?? (mode === 'page' ? (chosenPage() ?? pages[0]) : [pages[0][0], 0, last[0] + last[2], last[3]]);
    canvas.scrollLeft = (of[0] + of[2] / 2 - viewX) * shownScale - canvas.clientWidth / 2;
    canvas.scrollTop = (of[1] + of[3] / 2 - viewY) * shownScale - canvas.clientHeight / 2;
  }

  function chosenBox() {
    const boxes = chosen.map(frameElement).filter(Boolean).map(boundsOf);
    if (boxes.length === 0) return null;
    const left = Math.min(...boxes.map(b => b[0])), top = Math.min(...boxes.map(b => b[1]));
    return [left, top, Math.max(...boxes.map(b => b[0] + b[2])) - left, Math.max(...boxes.map(b => b[1] + b[3])) - top];
  }

  function chosenPage() {
    const frame = chosen.length > 0 && frameElement(chosen[0]);
    if (!frame) return null;
    const [x, , width] = boxOf(frame);
    return pages.find(p => x + width / 2 < p[0] + p[2]);
  }

  document.querySelectorAll('[data-zoom]').forEach(button => button.addEventListener('click', () => zoom(button.dataset.zoom)));

  // ---- Pointer --------------------------------------------------------------------------------------------------------------------------

  function at(event) {
    const point = new DOMPoint(event.clientX, event.clientY).matrixTransform(svg.getScreenCTM().inverse());
    return { x: point.x, y: point.y };
  }

  // The line on which drags are asked about stays open: one question at a time, and one answer to each.
  let line = null, answered = null;
  function openLine() {
    line = new WebSocket(`${location.origin.replace(/^http/, 'ws')}${address}/${spread}/hand`);
    line.addEventListener('message', event => answered?.(JSON.parse(event.data)));
    line.addEventListener('close', () => {
      line = null;
      answered?.(null);
    });
  }

  function question(values) {
    if (!line) openLine();
    return new Promise(resolve => {
      answered = answer => {
        answered = null;
        resolve(answer);
      };
      const send = () => line.send(JSON.stringify({ inside, command: { frames: chosen.join(','), ...values } }));
      if (line.readyState === WebSocket.OPEN) send();
      else line.addEventListener('open', send, { once: true });
    });
  }

  // Asks what the drag would come to. The newest pointer position wins: while one question is under way, only the latest next one is kept.
  let asking = false, next = null;
  async function askNext() {
    if (asking || !next) return;
    const { values, from } = next;
    next = null;
    asking = true;
    const seen = await question(values);
    asking = false;
    if (seen && from.open) from.show(seen);
    askNext();
  }

  function asker(show) {
    const from = { open: true, show };
    return {
      ask(values) {
        next = { values, from };
        askNext();
      },
      close() {
        from.open = false;
        if (next?.from === from) next = null;
      },
    };
  }

  function setAll(element, attributes) {
    for (const [name, value] of Object.entries(attributes)) element.setAttribute(name, value);
  }

  const shapeName = shape => 'd' in shape ? 'path' : 'points' in shape ? 'polygon' : 'rx' in shape ? 'ellipse' : 'rect';

  const geometry = new Set(['d', 'points', 'x', 'y', 'width', 'height', 'cx', 'cy', 'rx', 'ry']);

  // A rectangle whose corner is drawn away is none any more.
  function setShape(element, shape) {
    if (element.localName === shapeName(shape)) {
      setAll(element, shape);
      return;
    }
    const other = make(shapeName(shape), shape);
    for (const { name, value } of element.attributes) if (!geometry.has(name)) other.setAttribute(name, value);
    element.replaceWith(other);
  }

  function showPatch(patch) {
    const frame = frameElement(patch.id);
    if (!frame) {
      const group = make('g', { transform: patch.transform });
      group.append(make(shapeName(patch.shape), { class: 'ghost', ...patch.shape }));
      underWay.append(group);
      return;
    }
    frame.setAttribute('transform', patch.transform);
    frame.dataset.box = patch.box;
    frame.dataset.angle = patch.angle;
    if (patch.points) document.getElementById('shape-points')?.setAttribute('data-points', patch.points);
    if (patch.shape) frame.querySelectorAll('.shape, clipPath > *').forEach(shape => setShape(shape, patch.shape));
    if (patch.image) frame.querySelector('image')?.setAttribute('transform', patch.image);
    const label = frame.querySelector('.empty-label');
    if (label && patch.label) {
      setAll(label, { x: patch.label.x, y: patch.label.y });
      label.style.setProperty('--largest', `${patch.label.largest}px`);
      label.textContent = patch.label.text;
    }
    if (patch.text) frame.querySelector('.text-holder').innerHTML = patch.text;
    if (patch.figures) {
      frame.querySelectorAll('.figures tspan').forEach((line, i) => { line.textContent = patch.figures.lines[i]; });
      const sharpness = frame.querySelector('.sharpness');
      sharpness.dataset.sharpness = patch.figures.sharpness;
      sharpness.querySelector('text').textContent = patch.figures.resolution;
    }
  }

  const marks = document.getElementById('marks');
  let wordsAt = null;

  function showAnswer(answer) {
    underWay.replaceChildren();
    answer.frames.forEach(showPatch);
    marks.replaceChildren(...answer.marks.map(mark => make('line', { class: 'mark-line', ...mark })));
    if (answer.inside) document.dispatchEvent(new CustomEvent('formatum:inside', { detail: answer.inside }));
    else showGrips();
    // Moved with the answer: moved before it, the screen would be drawn once more in between, and the answer wait for that.
    if (wordsAt) pointerWords.style.transform = `translate(${wordsAt.clientX + 16}px, ${wordsAt.clientY + 18}px)`;
    pointerWords.textContent = answer.words;
    pointerWords.hidden = !answer.words || pointerWords.dataset.off === 'yes';
  }

  // Where the browser tells of the pointer at once, and not only when the next picture of the screen is due, the answer makes it into that picture.
  const pointerMoves = 'onpointerrawupdate' in window ? 'pointerrawupdate' : 'pointermove';

  // Follows the pointer from here on. What only was a click, without any way gone, is told to onClick.
  function startDrag(event, values, onClick = null, onDone = null) {
    const from = at(event);
    const startX = event.clientX, startY = event.clientY;
    let moved = false, last = null;
    const asking = asker(showAnswer);
    const valuesAt = e => {
      const to = at(e);
      return {
        ...values, fromX: from.x, fromY: from.y, toX: to.x, toY: to.y,
        even: e.shiftKey, fromCentre: e.altKey, withPicture: e.ctrlKey || e.metaKey, scale: catching() ? scale() : 0,
      };
    };
    svg.setPointerCapture(event.pointerId);
    pointerWords.dataset.off = '';
    const onMove = e => {
      if (e.pointerId !== event.pointerId) return;
      if (!moved && Math.hypot(e.clientX - startX, e.clientY - startY) < 3) return;
      moved = true;
      last = valuesAt(e);
      wordsAt = e;
      asking.ask(last);
    };
    const end = async (e, commit) => {
      if (e.pointerId !== undefined && e.pointerId !== event.pointerId) return;
      svg.removeEventListener(pointerMoves, onMove);
      svg.removeEventListener('pointerup', onUp);
      svg.removeEventListener('pointercancel', onCancel);
      document.removeEventListener('keydown', onKey, true);
      asking.close();
      pointerWords.hidden = true;
      pointerWords.dataset.off = 'yes';
      if (moved && last && commit) {
        const made = tool;
        await edit(valuesAt(e));
        if (tool !== 'pick') setTool('pick');
        onDone?.();
        const begun = Number(inspector.querySelector('[data-chosen][data-text]')?.dataset.chosen);
        if (made === 'text' && begun) window.Desk.write(begun);
      } else if (moved && last) {
        await refresh();
      } else if (commit) {
        onClick?.(valuesAt(e));
      }
      if (!window.Desk.writing) underWay.replaceChildren();
      marks.replaceChildren();
    };
    const onUp = e => end(e, true);
    const onCancel = e => end(e, false);
    const onKey = e => {
      if (e.key !== 'Escape') return;
      e.stopPropagation();
      end(e, false);
    };
    current = { cancel: () => end({}, false) };
    svg.addEventListener(pointerMoves, onMove);
    svg.addEventListener('pointerup', onUp);
    svg.addEventListener('pointercancel', onCancel);
    document.addEventListener('keydown', onKey, true);
  }

  let current = null;

  // A frame drawn over the table by the pointer, to choose what it meets.
  function startMarquee(event) {
    const from = at(event);
    const before = event.shiftKey ? chosen : [];
    canvas.setPointerCapture(event.pointerId);
    const box = make('rect', { class: 'marquee' });
    let met = null;
    const onMove = e => {
      const to = at(e);
      const x = Math.min(from.x, to.x), y = Math.min(from.y, to.y), width = Math.abs(to.x - from.x), height = Math.abs(to.y - from.y);
      if (!met && Math.max(width, height) * scale() < 4) return;
      underWay.replaceChildren(box);
      setAll(box, { x, y, width, height });
      met = [...svg.querySelectorAll('#frames [data-frame]')].filter(frame => {
        const [fx, fy, fw, fh] = boundsOf(frame);
        return fx < x + width && x < fx + fw && fy < y + height && y < fy + fh;
      }).map(frame => Number(frame.dataset.frame));
    };
    const onEnd = e => {
      underWay.replaceChildren();
      if (e.type === 'pointercancel') return;
      const next = [...new Set([...before, ...(met ?? [])])];
      if (next.join() !== chosen.join()) choose(next);
    };
    followPointer(canvas, onMove, onEnd);
  }

  svg.addEventListener('pointerdown', event => {
    if (event.button !== 0 || inside) return;
    if (event.target.closest('[data-guide], [data-gap]')) return;
    if (tool !== 'pick') {
      event.preventDefault();
      const made = toolDrag(tool);
      if (made) startDrag(event, made.values, made.onClick);
      return;
    }
    if (event.target.closest('[data-point]')) return;
    const grip = event.target.closest('[data-grip]');
    if (grip && chosen.length > 0) {
      event.preventDefault();
      const [pivotX, pivotY] = pivot.split(',');
      startDrag(event, grip.dataset.grip === 'turn' ? { do: 'turn', referenceX: pivotX, referenceY: pivotY } : { do: 'resize', grip: grip.dataset.grip });
      return;
    }
    const frame = event.target.closest('[data-frame]');
    if (!frame) return;
    const id = Number(frame.dataset.frame);
    const was = chosen.includes(id);
    if (event.shiftKey) {
      event.preventDefault();
      choose(was ? chosen.filter(other => other !== id) : [...chosen, id]);
      return;
    }
    if ((event.ctrlKey || event.metaKey) && stackAt(event).some(other => chosen.includes(other))) {
      // A click takes the frame beneath the one that is chosen; from the lowest, back to the topmost. A drag moves what is chosen.
      event.preventDefault();
      startDrag(event, { do: 'move' }, () => {
        const stack = stackAt(event);
        choose([stack[(stack.findIndex(other => chosen.includes(other)) + 1) % stack.length]]);
      });
      return;
    }
    if (!was) choose([id]);
    frame.focus({ preventScroll: true });
    event.preventDefault();
    // A click on one of several chooses it alone, or its group; a drag moves them all.
    const again = was && chosen.length > 1 && chosen.join() !== withGroups([id]).join() ? () => choose([id]) : null;
    if (frame.classList.contains('frame-locked')) again?.();
    else startDrag(event, { do: 'move' }, again);
  });

  // The frames under the pointer, topmost first.
  function stackAt(event) {
    const there = document.elementsFromPoint(event.clientX, event.clientY).map(element => element.closest('[data-frame]')).filter(Boolean);
    return [...new Set(there)].map(frame => Number(frame.dataset.frame));
  }

  // What a drag makes, by the tool in hand.
  function toolDrag(name) {
    switch (name) {
      case 'rectangle': case 'ellipse': case 'polygon': case 'text': return { values: { do: 'draw', outline: name, sides: polygonSides } };
      case 'grid': return { values: { do: 'grid', ...gridValues() } };
      case 'set-down': return { values: { do: 'set-down', image: carriedImage }, onClick: values => { setTool('pick'); edit(values); } };
      default: return null;
    }
  }

  let polygonSides = 6, carriedImage = null;
  const gridValues = () => Object.fromEntries(new FormData(document.getElementById('grid-form')));
  const catching = () => document.getElementById('catching').getAttribute('aria-pressed') === 'true';
  document.getElementById('catching').addEventListener('click', event => event.currentTarget.setAttribute('aria-pressed', !catching()));

  canvas.addEventListener('pointerdown', event => {
    if (event.button !== 0 || inside || tool !== 'pick' || event.target.closest('[data-frame], [data-grip], [data-point], [data-guide], [data-gap]')) return;
    startMarquee(event);
  });

  function setTool(next) {
    if (next === 'polygon' && tool === 'polygon') {
      // The polygon again: one side more, from three to twelve.
      polygonSides = polygonSides >= 12 ? 3 : polygonSides + 1;
    }
    if (tool !== next) document.dispatchEvent(new CustomEvent('formatum:tool', { detail: next }));
    document.querySelector('[data-tool="polygon"]').title = `Draw a polygon of ${polygonSides} sides (3); again for one side more`;
    document.getElementById('tool-words').textContent = next === 'polygon' ? `${polygonSides} sides` : next === 'set-down' ? 'click or draw: the picture is set down' : next === 'grid' ? 'draw the grid' : next === 'free' ? 'click the points, draw for a curve, Enter closes' : '';
    tool = next;
    canvas.dataset.tool = next;
    document.querySelectorAll('[data-tool].tool').forEach(b => b.setAttribute('aria-checked', b.dataset.tool === next));
  }

  document.querySelectorAll('.tool').forEach(button => button.addEventListener('click', () => setTool(button.dataset.tool)));

  // ---- Buttons and fields --------------------------------------------------------------------------------------------------------------

  document.addEventListener('click', event => {
    const button = event.target.closest('button[data-do]');
    if (!button) return;
    const values = { do: button.dataset.do };
    // From the list, what is chosen stays so.
    if (button.dataset.frames) Object.assign(values, { frames: button.dataset.frames, keep: chosen.join(',') || 'none' });
    if (button.dataset.images) Object.assign(values, { images: button.dataset.images });
    if (button.dataset.across) values.across = button.dataset.across;
    if (button.dataset.stack) values.stack = button.dataset.stack;
    if (button.dataset.same) values.same = button.dataset.same;
    if (button.dataset.lineUp) values.lineUp = button.dataset.lineUp;
    if (button.dataset.do === 'line-up' || button.dataset.do === 'distribute') values.with = lineUpWith;
    if (button.dataset.do === 'distribute') values.gap = document.getElementById('spread-gap').value;
    if (button.dataset.fit) values.fit = button.dataset.fit;
    if (button.dataset.x) Object.assign(values, { alignX: button.dataset.x, alignY: button.dataset.y });
    if (button.dataset.settings) values.settings = button.dataset.settings.split(',');
    if (button.dataset.takes) {
      const [x, y] = reference.split(',');
      Object.assign(values, { takes: button.dataset.takes, referenceX: x, referenceY: y });
    }
    edit(values);
  });

  // The point of a frame that stays when it takes on the size of its picture; remembered from one frame to the next.
  let reference = '0,0';
  inspector.addEventListener('click', event => {
    const button = event.target.closest('[data-reference]');
    if (!button) return;
    reference = button.dataset.reference;
    showReference();
  });
  function showReference() {
    for (const button of inspector.querySelectorAll('[data-reference]')) button.setAttribute('aria-checked', button.dataset.reference === reference);
  }
  inspector.addEventListener('htmx:afterSettle', showReference);

  // So are the point that frames turn about, and what they are lined up with.
  let pivot = '0.5,0.5', lineUpWith = 'EachOther';
  inspector.addEventListener('click', event => {
    const button = event.target.closest('[data-pivot]');
    if (!button) return;
    pivot = button.dataset.pivot;
    showArranging();
  });
  function showArranging() {
    for (const button of inspector.querySelectorAll('[data-pivot]')) button.setAttribute('aria-checked', button.dataset.pivot === pivot);
    const select = document.getElementById('line-up-with');
    if (select) select.value = lineUpWith;
  }
  inspector.addEventListener('htmx:afterSettle', showArranging);

  inspector.addEventListener('change', event => {
    const field = event.target;
    field.classList.remove('is-invalid');
    if (field.dataset.setting) {
      edit({ do: 'set', settings: field.dataset.setting, value: field.type === 'checkbox' ? field.checked : field.value });
      return;
    }
    if (field.id === 'line-up-with') {
      lineUpWith = field.value;
      return;
    }
    if (field.dataset.text || field.id === 'spread-gap' || field.closest('#repeat-form, #make-rule')) return;
    if (field.id === 'choose-by-rule') {
      if (field.value) choose(field.value.split(',').map(Number));
      return;
    }
    if (field.matches('[data-outline]')) {
      const [outline, sides] = field.value.split('-');
      edit({ do: 'outline', outline, sides: sides ?? 6 });
      return;
    }
    if (field.matches('select[data-do], input[data-do]')) {
      if (field.value || 'empty' in field.dataset) edit({ do: field.dataset.do, [field.dataset.value]: field.value, ...(field.dataset.page && { page: field.dataset.page }) });
      return;
    }
    if (field.closest('.typed')) {
      const [pivotX, pivotY] = pivot.split(',');
      edit({ do: 'type', [field.name]: field.value, referenceX: pivotX, referenceY: pivotY });
    }
  });
  inspector.addEventListener('submit', event => {
    event.preventDefault();
    if (event.target.id === 'make-rule') {
      const form = new FormData(event.target);
      edit({ do: 'make-rule', name: form.get('name'), settings: form.getAll('settings') });
      return;
    }
    if (event.target.id === 'repeat-form') {
      edit({ do: 'repeat', ...Object.fromEntries(new FormData(event.target)) });
      return;
    }
    // Enter in a field tells what was typed, and stays in the field's place.
    document.activeElement?.blur();
  });

  inspector.addEventListener('click', event => {
    const button = event.target.closest('[data-choose]');
    if (button) choose(button.dataset.choose.split(',').map(Number));
  });

  // ---- Pictures onto frames --------------------------------------------------------------------------------------------------------------

  const sheet = document.getElementById('sheet');

  function place(image, frames) {
    const everywhere = document.getElementById('replace-everywhere')?.checked && `${frames}` === chosen.join(',');
    return edit({ do: everywhere ? 'replace-everywhere' : 'place', frames, image });
  }

  sheet.addEventListener('click', event => {
    const thumb = event.target.closest('.thumb');
    if (!thumb || thumb.dataset.carried) return;
    if (chosen.length > 0) place(thumb.dataset.image, chosen.join(','));
    else {
      // Nothing is chosen: the picture is in hand, to be set down on the page with a frame of its own.
      carriedImage = thumb.dataset.image;
      setTool('set-down');
    }
  });

  sheet.addEventListener('pointerdown', event => {
    const thumb = event.target.closest('.contact-sheet li')?.querySelector('.thumb');
    if (!thumb || event.button !== 0) return;
    const startX = event.clientX, startY = event.clientY;
    let carried = null, over = null;
    const onMove = e => {
      if (!carried && Math.hypot(e.clientX - startX, e.clientY - startY) < 6) return;
      if (!carried) {
        carried = thumb.querySelector('img').cloneNode();
        carried.className = 'carried';
        document.body.append(carried);
        thumb.dataset.carried = 'yes';
      }
      carried.style.left = `${e.clientX + 8}px`;
      carried.style.top = `${e.clientY + 8}px`;
      const frame = document.elementFromPoint(e.clientX, e.clientY)?.closest('[data-frame]') ?? null;
      if (frame !== over) {
        over?.classList.remove('drop-here');
        frame?.classList.add('drop-here');
        over = frame;
      }
    };
    const onEnd = e => {
      carried?.remove();
      over?.classList.remove('drop-here');
      setTimeout(() => delete thumb.dataset.carried);
      if (!carried || e.type === 'pointercancel') return;
      if (over) place(thumb.dataset.image, Number(over.dataset.frame));
      else if (document.elementFromPoint(e.clientX, e.clientY)?.closest('#canvas')) {
        const { x, y } = at(e);
        edit({ do: 'set-down', image: thumb.dataset.image, fromX: x, fromY: y, toX: x, toY: y });
      }
    };
    followPointer(document, onMove, onEnd);
  });

  // Files from the computer: dropped on a frame, the first that could be read is placed there; dropped on the table, they wait in the tray.
  canvas.addEventListener('dragover', event => {
    if (event.dataTransfer.types.includes('Files')) event.preventDefault();
  });
  canvas.addEventListener('drop', async event => {
    if (!event.dataTransfer.types.includes('Files')) return;
    event.preventDefault();
    const frame = event.target.closest('[data-frame]')?.dataset.frame;
    const files = await filesOf(event.dataTransfer);
    if (files.length === 0) return;
    const arrived = await bringIn(files);
    const came = [...new Set(arrived.filter(a => a.id).map(a => a.id))];
    if (frame && came.length > 0) await place(came[0], Number(frame));
    const waiting = frame ? came.slice(1) : came;
    if (waiting.length > 0) await edit({ do: 'tray-add', images: waiting.join(',') });
  });
  document.addEventListener('formatum:images', () => refresh());
  document.addEventListener('formatum:changed', () => refresh());

  // ---- Keys ----------------------------------------------------------------------------------------------------------------------------------

  const arrows = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };

  document.addEventListener('keydown', event => {
    if (event.target.closest('input:not([type=checkbox], [type=range]), select, textarea, [contenteditable]')) return;
    const command = event.ctrlKey || event.metaKey;
    if (document.querySelector('dialog[open]')) return;
    if (command && event.key.toLowerCase() === 'z') {
      event.preventDefault();
      edit({ do: event.shiftKey ? 'redo' : 'undo' });
      return;
    }
    if (command && !inside && chosen.length > 0 && event.key.toLowerCase() === 'd') {
      event.preventDefault();
      const offset = 12;
      edit({ do: 'repeat', count: 1, rows: 1, byX: `${offset}pt`, byY: `${offset}pt` });
      return;
    }
    if (command && !inside && chosen.length > 0 && event.key.toLowerCase() === 'g') {
      event.preventDefault();
      edit({ do: event.shiftKey ? 'ungroup' : 'group' });
      return;
    }
    if (command && event.key.toLowerCase() === 'a' && !inside) {
      event.preventDefault();
      choose([...svg.querySelectorAll('#frames [data-frame]')].map(frame => Number(frame.dataset.frame)));
      return;
    }
    if (command || event.altKey) return;
    const steps = arrows[event.key]?.map(step => step * (event.shiftKey ? 10 : 1));
    if (steps && window.Desk.shapeNudge?.(steps)) {
      event.preventDefault();
      return;
    }
    if (steps && chosen.length > 0 && !event.target.closest('.strip, .pictures, .inspector, .workbar')) {
      event.preventDefault();
      edit({ do: inside ? 'picture-nudge' : 'nudge', stepsX: steps[0], stepsY: steps[1], ...(inside && window.insideOptions()) });
      return;
    }
    if (window.Desk.shapeKey?.(event)) {
      event.preventDefault();
      return;
    }
    switch (event.key) {
      case '1': case '2': case '3': case '4': case '5': if (!inside) setTool(['rectangle', 'ellipse', 'polygon', 'free', 'text'][event.key - 1]); break;
      case 'PageUp': case 'PageDown':
        if (inside || chosen.length === 0) return;
        event.preventDefault();
        edit({ do: 'stack', stack: event.key === 'PageUp' ? (event.shiftKey ? 'Front' : 'Forward') : event.shiftKey ? 'Back' : 'Backward' });
        break;
      case 'Escape':
        if (inside) choose(chosen);
        else if (tool !== 'pick') setTool('pick');
        else if (chosen.length > 0) choose([]);
        break;
      case 'Enter': {
        if (inside || event.target.closest('button:not([data-frame]), a, summary')) return;
        const frame = event.target.closest('[data-frame]');
        const id = frame ? Number(frame.dataset.frame) : chosen[0];
        if (id && chosen.length === 1 && chosen[0] === id && frameElement(id).classList.contains('frame-text')) {
          event.preventDefault();
          window.Desk.write(id);
        } else if (id && chosen.length === 1 && chosen[0] === id && !frameElement(id).classList.contains('frame-empty')) choose([id], true);
        else if (frame) choose([id]);
        break;
      }
      case '.': if (chosen.length > 0) edit({ do: 'step-fit' }); break;
      case 'Delete': if (chosen.length > 0 && !inside) edit({ do: 'remove' }); break;
      case '+': if (inside) edit({ do: 'picture-zoom-middle', factor: 1.05, ...window.insideOptions() }); else zoom('in'); break;
      case '-': if (inside) edit({ do: 'picture-zoom-middle', factor: 1 / 1.05, ...window.insideOptions() }); else zoom('out'); break;
      case '?': document.getElementById('keys').showPopover(); break;
      case '`': canvas.classList.add('clean'); break;
      default: return;
    }
  });

  svg.addEventListener('dblclick', event => {
    if (window.Desk.shaping) return;
    // The pointer was captured by the drawing, so the event does not say what lies under it.
    const frame = document.elementFromPoint(event.clientX, event.clientY)?.closest('[data-frame]');
    if (!inside && frame?.classList.contains('frame-text')) window.Desk.write(Number(frame.dataset.frame));
    else if (!inside && frame && !frame.classList.contains('frame-empty')) choose([Number(frame.dataset.frame)], true);
  });

  document.querySelectorAll('[data-overlay]').forEach(button => button.addEventListener('click', () => {
    const on = button.getAttribute('aria-pressed') !== 'true';
    document.querySelectorAll('[data-overlay]').forEach(other => other.setAttribute('aria-pressed', on && other === button));
    canvas.dataset.over = on ? button.dataset.overlay : '';
  }));

  document.addEventListener('keyup', event => { if (event.key === '`') canvas.classList.remove('clean'); });

  // ---- Other windows ---------------------------------------------------------------------------------------------------------------------

  const events = new EventSource(`/publications/${desk.dataset.publication}/events`);
  events.addEventListener('changed', event => {
    const check = () => {
      if (busy) setTimeout(check, 50);
      else if (Number(event.data) > revision()) refresh();
    };
    check();
  });

  events.addEventListener('links', () => { if (!busy) refresh(); });

  window.addEventListener('resize', () => { if (document.querySelector('[data-zoom="spread"]').getAttribute('aria-pressed') === 'true') zoom('spread'); });
  // What the other scripts of the Desk build on.
  window.Desk = {
    svg, canvas, inspector, grips, marks, underWay, address, spread, make, setAll, at, scale, setScale, edit, choose, asker, showAnswer, startDrag, showGrips, addGrip, setTool, gridValues, boxOf, frameElement,
    get tool() { return tool; },
    get inside() { return inside; },
    get chosen() { return chosen; },
    get revision() { return revision(); },
    cancelDrag() { current?.cancel(); },
  };

  openLine();
  setTool('pick');
  zoom('spread');
  document.querySelector('.strip-item[aria-current]').scrollIntoView({ block: 'nearest', inline: 'center' });
  readInspector();
  desk.dataset.ready = 'yes';
})();
