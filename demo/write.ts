import { writeFileSync } from 'node:fs';
import { demoCalls } from './calls';
import { demoScenario } from './scenario';

writeFileSync('demo/demo.json', `${JSON.stringify(demoScenario(), null, 1)}\n`);
writeFileSync('demo/calls.json', `${JSON.stringify(demoCalls(), null, 1)}\n`);
console.log('demo/demo.json and demo/calls.json written');
