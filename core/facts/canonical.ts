import canonicalize from 'canonicalize';

/** One text for one content (RFC 8785): keys sorted, no spaces, numbers as ECMAScript writes them. */
export const canonical = (value: unknown): string => canonicalize(value) ?? 'null';
