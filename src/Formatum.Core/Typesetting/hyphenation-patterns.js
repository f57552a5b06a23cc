// Writes the patterns of the package "hyphen" as text, for each language a line "# language", then "letters levels" and "=word places" for exceptions.
// Run by the build: node hyphenation-patterns.js NODE_MODULES FILE
const [modules, file] = process.argv.slice(2);
const languages = { 'en-GB': 'en-gb', 'en-US': 'en-us', de: 'de-1996', fr: 'fr', es: 'es', it: 'it', nl: 'nl', pt: 'pt', sv: 'sv', da: 'da', pl: 'pl' };

const lines = [];
for (const [language, name] of Object.entries(languages)) {
  const [levels, trie, exceptions] = require(`${modules}/hyphen/patterns/${name}.js`);
  lines.push(`# ${language}`);
  const walk = (node, letters) => {
    // A node is its children, the number of its levels, or both.
    const [children, at] = Array.isArray(node) ? node : typeof node === 'number' ? [{}, node] : [node, -1];
    if (at >= 0) lines.push(`${letters} ${levels[at].join('')}`);
    for (const [letter, next] of Object.entries(children)) walk(next, letters + letter);
  };
  walk(trie, '');
  for (const [word, places] of Object.entries(exceptions ?? {})) lines.push(`=${word} ${places.join(',')}`);
}
require('fs').writeFileSync(file, lines.join('\n') + '\n');
