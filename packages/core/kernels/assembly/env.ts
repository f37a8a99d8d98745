/** Milliseconds of a clock that all threads share well enough for differences. */
export declare function now(): f64;
