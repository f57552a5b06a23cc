// House style, looks: typing a figure sets its part. Nothing is computed here.
import './rules.js';

// Before the form's own listeners send what is typed.
document.getElementById('rule-form').addEventListener('input', event => {
  if (!event.target.name?.startsWith('Figures[')) return;
  event.target.closest('[data-part]').querySelector('[name="On"]').checked = true;
}, true);
