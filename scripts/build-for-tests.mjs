import { build } from './build.mjs';

build('.next-test');
