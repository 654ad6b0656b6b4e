import * as z from 'zod';
import data from './data/observables.json';
import { type Observable, ObservableSchema, type Registry, registryOf } from './observable';

const STATIC: readonly Observable[] = z.array(ObservableSchema).parse(data);

/** The observables that ship, plus those that a catalogue brings (its features). */
export function registryWith(more: readonly Observable[]): Registry {
  return registryOf([...STATIC, ...more]);
}
