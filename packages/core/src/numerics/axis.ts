/** An axis of space by its number: x, y, z. */
export type Axis = 0 | 1 | 2;
