// Compare: what it is compared with is asked for at once, and pages are shown beside or over each other.
const main = document.querySelector('.compare-main');
const form = document.getElementById('compare-form');

form.addEventListener('change', event => { if (event.target.value) form.requestSubmit(); });
for (const choice of document.querySelectorAll('[name=view]')) choice.addEventListener('change', () => { main.dataset.view = choice.value; });
document.getElementById('compare').dataset.ready = 'yes';
