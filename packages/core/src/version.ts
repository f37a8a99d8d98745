/** Version of the computing core; every run keeps it. */
export const coreVersion = '0.2.0';
