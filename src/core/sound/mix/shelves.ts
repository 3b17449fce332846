/** Where the shelves of an equaliser have half of their gain, Hz; with this Q they rise as steeply as they can without a bump. */
export const LOW_SHELF_HZ = 120;
export const HIGH_SHELF_HZ = 6000;
export const SHELF_Q = 0.7071067811865476;
