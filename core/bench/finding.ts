/** What a part shows, judged from facts: the thing that causes are weighed on. `about`: the thing, when it is not the first. */
export type Finding = { finding: string; value: string; facts: string[]; about?: string };
