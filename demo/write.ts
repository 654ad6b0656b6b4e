import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { demoBoxes } from './boxes/boxes';
import { demoCalls } from './calls';
import { demoScenario } from './scenario';

writeFileSync('demo/demo.json', `${JSON.stringify(demoScenario(), null, 1)}\n`);
writeFileSync('demo/calls.json', `${JSON.stringify(demoCalls(), null, 1)}\n`);
const { boxes, photos } = demoBoxes();
writeFileSync('demo/boxes.json', `${JSON.stringify(boxes, null, 1)}\n`);
rmSync('demo/photos', { recursive: true, force: true });
mkdirSync('demo/photos');
for (const { ref, png } of photos) writeFileSync(`demo/photos/${ref.hash}.png`, png);
console.log(`demo/demo.json, calls.json, boxes.json and ${photos.length} photographs written`);
