/** CODATA 2018 values. */
export const c0 = 299792458;
export const eps0 = 8.8541878128e-12;
export const mu0 = 1.25663706212e-6;
export const eta0 = 376.730313668;
