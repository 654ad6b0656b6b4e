import { resolve } from 'node:path';
import { catalogueBench } from './catalogue-bench';
import { screenBench } from './screen-bench';
import { benchLayoutFile, driveBench } from './drive-bench';
import { loadBench } from './load-bench';
import { print } from './measure';

console.log('Medians on this machine, now; the ratio is what compares across machines.\n');
print(driveBench());
print(catalogueBench());
print(await loadBench(resolve('dist/app')));
print(await screenBench(resolve('dist/app'), benchLayoutFile()));
