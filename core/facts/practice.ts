/** Ids of returns for practice begin so. */
const PREFIX = 'practice-';

/**
 * Whether a case is a return for practice. Such ids are never given to real cases; records, files and threads that take facts in refuse
 * them, so that none can become the other.
 */
export const isPractice = (caseId: string | undefined): boolean => caseId?.startsWith(PREFIX) === true;
