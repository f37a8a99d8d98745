/** Speed of light, m/s. */
export const c0 = 299792458;
