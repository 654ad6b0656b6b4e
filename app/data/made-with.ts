/** Under this name the record store says with which knowledge the summaries were made, and whether packs came since. */
export const MADE_WITH = 'summaries with runs';
