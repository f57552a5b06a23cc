// The Desk: follows the pointer and the keys, sends them to the server, and shows what it answers. No fit, no snap and no size is computed here.
import '../shared/intake.js';
import './grips.js';
import './selection.js';
import './inspector.js';
import './tools/coming.js';
import './tools/draw.js';
import './tools/find.js';
import './tools/free.js';
import './tools/gap.js';
import './tools/guides.js';
import './tools/place.js';
import './tools/marked.js';
import './tools/pour.js';
import './tools/runon.js';
import './tools/shape.js';
import './writing/text.js';
import './tools/tray.js';
import './tools/treatment.js';
import './clipboard.js';
import './history.js';
import './keys.js';
import './output.js';
import './subject.js';
import { changedElsewhere, refresh } from './edits.js';
import { change } from './state.js';
import './findings.js';
import { desk, inspector, numbers, publication } from './parts.js';
import { listen } from '../shared/events.js';
import { showAsBefore } from './view.js';
import { showCaret } from './others.js';
import { showStrip } from './strip.js';

change({
  selection: numbers(inspector.querySelector('[data-chosen]')?.dataset.chosen),
  revision: Number(document.getElementById('revision').dataset.revision),
  answered: 1,
});
listen(publication, { changed: changedElsewhere, links: refresh, caret: showCaret });
showAsBefore();
showStrip();
desk.dataset.ready = 'yes';
