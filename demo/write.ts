import { writeFileSync } from 'node:fs';
import { demoScenario } from './scenario';

writeFileSync('demo/demo.json', `${JSON.stringify(demoScenario(), null, 1)}\n`);
console.log('demo/demo.json written');
