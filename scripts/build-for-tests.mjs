import { build } from './build.mjs';

await build('.next-test');
