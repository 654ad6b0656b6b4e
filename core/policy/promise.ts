import figures from './data/figures.json';

/** Days within which the house promises an answer to what was returned or claimed. By itself: the start page needs no more of the policy. */
export const PROMISE_DAYS: number = figures.promiseDays;
