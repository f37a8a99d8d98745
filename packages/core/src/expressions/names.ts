/** Unit names that may follow a number. */
export const unitNameList = [
  'm', 'cm', 'mm', 'um', 'nm', 'km', 'mil', 'inch', 'Hz', 'kHz', 'MHz', 'GHz', 'THz', 's', 'ms', 'us', 'ns', 'ps', 'fs', 'deg', 'rad', 'ohm', 'kohm', 'Mohm',
  'V', 'mV', 'kV', 'A', 'mA', 'W', 'mW', 'kW', 'F', 'uF', 'nF', 'pF', 'fF', 'H', 'uH', 'nH', 'pH',
] as const; // prettier-ignore

/** Names of physical and mathematical constants. */
export const constantNames = ['pi', 'e', 'c0', 'eps0', 'mu0', 'eta0'] as const;

/** Functions that an expression may call; all take and give scalars in bounded time. */
export const functionNames = [
  'sqrt', 'abs', 'sin', 'cos', 'tan', 'asin', 'acos', 'atan', 'atan2', 'sinh', 'cosh', 'tanh', 'exp', 'log', 'log10', 'log2', 'min', 'max', 'floor', 'ceil', 'round', 'sign', 'hypot',
] as const; // prettier-ignore

/** Names that a given cannot take. */
export const reservedNames: ReadonlySet<string> = new Set<string>([...unitNameList, ...constantNames, ...functionNames]);
