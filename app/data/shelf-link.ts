/** Where it lies among the settings which shelf this browser is joined to. It never goes along with a backup. */
export const SHELF_LINK = 'shelf-link';
