/**
 * `npm run bench` measures the engine; `npm run bench -- browser [ADDRESS]` measures the page of a server that
 * runs (`npm run demo`), at http://127.0.0.1:3200 unless said otherwise.
 */
const [part, address] = process.argv.slice(2);
if (part === 'browser') void import('./browser').then((m) => m.measurePage(address));
else void import('./engine');
export {};
