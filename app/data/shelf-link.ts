/** Where it lies among the settings which shelf this browser is joined to. It never goes along with a backup. */
export const SHELF_LINK = 'shelf-link';
/** What stands behind the numbers of new cases until the shelf is known to be within reach. */
export const SHELF_MARK = 'shelf-mark';
