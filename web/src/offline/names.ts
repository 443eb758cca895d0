/** What page and worker call alike. */

/** Where the farm's last answers are kept on this device. */
export const LAST_ANSWERS = 'zymarch-answers'

/** The header of an answer that is from before. */
export const FROM_BEFORE = 'x-from-before'
