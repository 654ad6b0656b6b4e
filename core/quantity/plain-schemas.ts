import * as z from 'zod';

// Schemas are walked, not compiled: the page's own policy forbids code made from text. Imported before any schema is made.
z.config({ jitless: true });
