// What makes the built app start fast: the browser is told that all of its script is needed.
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';

/** One module as Metro writes it, on a line of its own: `__d(function(...){...},id,[ids of what it needs]);` */
const MODULE = /^__d\((function.*\}),(\d+),(\[[\d,null]*\]|\{.*\})\);$/;

/**
 * Puts every module's function of the first script in parentheses. V8 takes a function that stands so for one that is called at
 * once, and compiles it while the script comes, beside the page; else it only looks through it, and compiles it in the page when it
 * is called, which all of these are before the first picture (V8 blog, "Blazingly fast parsing, part 2: lazy parsing", 2019).
 */
export function compileAtOnce(directory) {
  const scripts = path.join(directory, '_expo', 'static', 'js', 'web');
  for (const name of readdirSync(scripts).filter((file) => /^entry.*\.js$/.test(file))) {
    const file = path.join(scripts, name);
    const lines = readFileSync(file, 'utf8').split('\n');
    const marked = lines.map((line) => line.replace(MODULE, '__d(($1),$2,$3);'));
    const modules = lines.filter((line) => line.startsWith('__d(')).length;
    const left = marked.filter((line) => line.startsWith('__d(function')).length;
    // Written otherwise by another version of Metro, it would be slow and nobody would know.
    if (modules === 0 || left > modules / 10)
      throw new Error(`${name}: ${left} of ${modules} modules are not as expected.`);
    writeFileSync(file, marked.join('\n'));
  }
}
