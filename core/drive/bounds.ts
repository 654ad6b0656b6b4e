import * as z from 'zod';
import '@core/quantity/plain-schemas';

/**
 * Bounds of what a drive's figures may be at the border: wide enough for any engine, narrow enough that no file can make a
 * computation or a drawing run away.
 */
export const Mm = z.number().min(-10_000).max(10_000);
export const PositiveMm = z.number().positive().max(20_000);
export const Deg = z.number().min(-3600).max(3600);
export const Teeth = z.number().int().positive().max(1000);
