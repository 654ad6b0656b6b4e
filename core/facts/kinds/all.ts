import caseKind from './case.json';
import call from './call.json';
import vehicle from './vehicle.json';
import engine from './engine.json';
import kit from './kit.json';
import returnKind from './return.json';
import fitting from './fitting.json';
import drive from './drive.json';
import claim from './claim.json';
import fault from './fault.json';
import cost from './cost.json';
import wheel from './wheel.json';
import bank from './bank.json';
import stage from './stage.json';
import step from './step.json';
import old from './old.json';
import packing from './packing.json';
import tensioner from './tensioner.json';
import belt from './belt.json';
import chain from './chain.json';
import guide from './guide.json';
import cassette from './cassette.json';
import roller from './roller.json';
import wheels from './wheels.json';
import sprocket from './sprocket.json';
import damper from './damper.json';
import phaser from './phaser.json';
import pump from './pump.json';
import bolt from './bolt.json';
import ring from './ring.json';
import cover from './cover.json';
import noise from './noise.json';
import oil from './oil.json';
import cooling from './cooling.json';

/** A file a kind of thing: how it is called, what can be observed of it, how it is examined, and how its grades are drawn. In the order of the stations. */
export const KIND_DATA: readonly unknown[] = [
  caseKind,
  call,
  vehicle,
  engine,
  kit,
  returnKind,
  fitting,
  drive,
  claim,
  fault,
  cost,
  wheel,
  bank,
  stage,
  step,
  old,
  packing,
  tensioner,
  belt,
  chain,
  guide,
  cassette,
  roller,
  wheels,
  sprocket,
  damper,
  phaser,
  pump,
  bolt,
  ring,
  cover,
  noise,
  oil,
  cooling,
];
