/** Gathers the messages of the interface into the file translators start from, `src/shared/texts/en.json`.
 *
 * `node scripts/texts.mjs` writes it, `--check` says whether it is what the code asks for. A message has to be a literal,
 * to be read by ICU MessageFormat, and to be given just the values it names.
 */
import { parse, TYPE } from '@formatjs/icu-messageformat-parser';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import ts from 'typescript';

const WEB = fileURLToPath(new URL('..', import.meta.url));
const GATHERED = `${WEB}src/shared/texts/en.json`;
const PASSED_OVER = /\.spec\.|shared\/(testing|texts)\/|schema\.d\.ts/;

/** The names a message asks values for. */
function named(elements) {
  const names = new Set();
  for (const element of elements) {
    if (element.type === TYPE.literal || element.type === TYPE.pound) continue;
    names.add(element.value);
    for (const option of Object.values(element.options ?? {})) for (const name of named(option.value)) names.add(name);
    for (const name of named(element.children ?? [])) names.add(name);
  }
  return names;
}

function given(values) {
  if (!values) return new Set();
  if (!ts.isObjectLiteralExpression(values)) return null;
  const names = values.properties.map((p) => (ts.isSpreadAssignment(p) ? null : p.name.text));
  return names.includes(null) ? null : new Set(names);
}

/** A message, or one of two; null for what is no literal. */
function literals(node) {
  if (ts.isStringLiteralLike(node)) return [node.text];
  if (!ts.isConditionalExpression(node)) return null;
  const [one, other] = [literals(node.whenTrue), literals(node.whenFalse)];
  return one && other && [...one, ...other];
}

const messages = new Set();
const wrong = [];

function read(file) {
  const source = ts.createSourceFile(file, readFileSync(WEB + file, 'utf-8'), ts.ScriptTarget.Latest, true);
  const visit = (node) => {
    if (ts.isCallExpression(node) && ts.isIdentifier(node.expression) && /^(t|rich)$/.test(node.expression.text)) {
      const at = `${file}:${source.getLineAndCharacterOfPosition(node.getStart()).line + 1}`;
      const [first, values] = node.arguments;
      const said = first ? literals(first) : null;
      if (!said) wrong.push(`${at}: the message is not a literal`);
      for (const message of said ?? []) messages.add(message);
      try {
        const asked = new Set(
          (said ?? []).flatMap((message) => [...named(parse(message, { ignoreTag: node.expression.text === 't' }))]),
        );
        const had = given(values);
        if (had && (asked.size !== had.size || [...asked].some((name) => !had.has(name))))
          wrong.push(
            `${at}: asks for ${[...asked].join(', ') || 'nothing'}, is given ${[...had].join(', ') || 'nothing'}`,
          );
      } catch (error) {
        wrong.push(`${at}: ${error.message}`);
      }
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
}

for (const file of readdirSync(`${WEB}src`, { recursive: true }))
  if (/\.tsx?$/.test(file) && !PASSED_OVER.test(file)) read(`src/${file}`);
const sorted = [...messages].sort((a, b) => (a < b ? -1 : 1));
const made = `${JSON.stringify(Object.fromEntries(sorted.map((message) => [message, message])), null, 2)}\n`;
if (process.argv.includes('--check')) {
  let kept = '';
  try {
    kept = readFileSync(GATHERED, 'utf-8');
  } catch {
    // None yet.
  }
  if (kept !== made) wrong.push('src/shared/texts/en.json is out of date: npm run texts');
} else writeFileSync(GATHERED, made);
for (const line of wrong) console.error(line);
process.exitCode = wrong.length ? 1 : 0;
