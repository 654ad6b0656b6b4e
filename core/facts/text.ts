const HALF = /[\ud800-\udbff](?![\udc00-\udfff])|(?<![\ud800-\udbff])[\udc00-\udfff]/g;

/** Half a sign, as a cut text may end in, has no place in canonical JSON (RFC 8785, 3.2.2.2): it becomes U+FFFD. */
export const whole = (text: string): string => text.replace(HALF, '\ufffd');

/** True when a text holds no half of a sign. */
export const isWhole = (text: string): boolean => whole(text) === text;
